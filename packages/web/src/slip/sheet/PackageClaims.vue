<script lang="ts">
/** The claims of one package of a route, with how many of them hold. */
</script>

<script setup lang="ts">
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import ClaimList from '../../shelf/ClaimList.vue'

const props = defineProps<{ id: string }>()
const say = useSay()
const pack = useRead('shelfPackage', () => ({ params: { id: props.id } }))
</script>

<template>
  <Resource v-slot="{ data }" :read="pack">
    <details :open="data.state !== 'published'" :data-package="data.id">
      <summary>
        <b>{{ data.title }}</b>
        {{ say(`package.state.${data.state}`) }} ·
        {{ say('proof.claims.small', { held: data.held, all: data.made }) }}
      </summary>
      <ClaimList :claims="data.claims" :label="data.title" />
    </details>
  </Resource>
</template>

<style scoped>
summary {
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  cursor: pointer;
}
</style>
