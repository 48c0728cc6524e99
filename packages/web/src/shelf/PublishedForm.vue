<script lang="ts">
/** What somebody outside publishes for a volume of a package: its digest, who says so, where it stands. */
</script>

<script setup lang="ts">
import type { OutsideSource } from '@plain-slate/core'
import { OUTSIDE } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import type { Answer } from '../server/call.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ volumes: Answer<'shelfPackage'>['volumes'] }>()
const say = useSay()
const client = useQueryClient()
const put = useChange('archivePublished')
const archive = ref(props.volumes[0]?.archive ?? '')
const sha256 = ref('')
const where = ref('')
const source = ref<OutsideSource>('maker')
const file = computed(() => props.volumes.find((one) => one.archive === archive.value)?.file ?? '')
const sources = OUTSIDE.map((value) => ({ value, title: say(`outside.${value}`) }))
const files = computed(() => props.volumes.map((one) => ({ value: one.archive, title: one.file })))
const isWhole = computed(() => sha256.value.trim() !== '' && where.value.trim() !== '')
async function go() {
  if (!isWhole.value) return
  const body = {
    sha256: sha256.value.trim().toLowerCase(),
    source: source.value,
    where: where.value.trim(),
  }
  const done = await put.mutateAsync({ params: { id: archive.value }, body }).catch(() => undefined)
  if (done === undefined) return
  sha256.value = ''
  renew(client, 'shelf')
}
</script>

<template>
  <section class="no-print" aria-labelledby="outside">
    <h2 id="outside">
      {{ say('package.outside') }} <small>{{ say('package.outside.small') }}</small>
    </h2>
    <form @submit.prevent="go">
      <v-select
        v-if="volumes.length > 1"
        v-model="archive"
        :items="files"
        :label="say('package.outside.volume')"
      />
      <v-text-field
        v-model="sha256"
        class="mono"
        :label="say('package.outside.digest', { file })"
        maxlength="64"
      />
      <v-select v-model="source" :items="sources" :label="say('package.outside.source')" />
      <v-text-field v-model="where" :label="say('package.outside.where')" maxlength="200" />
      <v-btn type="submit" variant="outlined" :disabled="!isWhole || put.isPending.value">{{
        say('package.outside.go')
      }}</v-btn>
    </form>
    <Trouble v-if="put.error.value" :trouble="troubleOf(put.error.value)" quiet />
  </section>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  max-width: 640px;
  justify-items: start;
}
form > :not(button) {
  width: 100%;
}
</style>
