<script lang="ts">
/** One package: each claim that is made of it, beside what its bytes say. */
</script>

<script setup lang="ts">
import { leastOf, reaches } from '@plain-slate/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import ClaimList from './ClaimList.vue'
import PublishedForm from './PublishedForm.vue'

const say = useSay()
const route = useRoute()
const session = useSessionStore()
const may = computed(() => reaches(session.person?.role, leastOf('shelf.add')))
const id = computed(() => String(route.params['package'] ?? ''))
const pack = useRead('shelfPackage', () => ({ params: { id: id.value } }))
</script>

<template>
  <p class="no-print">
    <router-link to="/shelf">{{ say('package.back') }}</router-link>
  </p>
  <Resource v-slot="{ data }" :read="pack">
    <h1>
      {{ say('package.title', { title: data.title, state: say(`package.state.${data.state}`) }) }}
    </h1>
    <p class="mono dim small">{{ data.key }}</p>
    <p class="lede">
      {{
        say('package.lede', {
          kind: data.kind,
          release: data.release,
          date: data.patchDate,
          models: data.models.join(', '),
          boards: data.boards.join(', '),
        })
      }}
    </p>
    <h2 id="claims">{{ say('package.claims') }}</h2>
    <ClaimList :claims="data.claims" :label="say('package.claims')" />
    <PublishedForm v-if="may && data.volumes.length > 0" :key="data.key" :volumes="data.volumes" />
  </Resource>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
</style>
