<script lang="ts">
/**
 * An image of the owner's own, carried over into a package in place of its own: the file, the package it was made from, and
 * what the server says of it block by block.
 */
</script>

<script setup lang="ts">
import type { RouteShown } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import FileField from '../../parts/FileField.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange, useRead } from '../../server/query.ts'
import { useShelving } from '../../shelf/shelving.ts'
import { useJob } from '../job.ts'

const props = defineProps<{ routes: readonly RouteShown[] }>()
const say = useSay()
const client = useQueryClient()
const shelving = useShelving()
const { job, may, params } = useJob()
const carry = useChange('jobCarry')
const open = ref(false)
const archive = ref('')
const into = ref('')

const shelf = useRead('shelf', {}, { enabled: open })
/** Archives that are read whole and in which no package lies. */
const images = computed(() =>
  (shelf.data.value?.archives ?? []).filter(
    (one) => one.state === 'whole' && one.package === null && one.removedAt === null,
  ),
)
const isOwn = ({ findings }: RouteShown) => findings.some(({ rule }) => rule === 'package.carried')
const offered = computed(() => {
  const data = job.data.value
  return may.value && data?.run === null && data.family?.carries === true
})
/** Packages that could take one, each once. */
const packages = computed(() => {
  const whole = props.routes.filter((one) => !isOwn(one))
  return [...new Map(whole.map((one) => [one.package, one.title]))]
})

const chosen = (file: File) => shelving.shelve([file])
async function go() {
  const body = { archive: archive.value, package: into.value }
  const done = await carry.mutateAsync({ params: params.value, body }).catch(() => undefined)
  if (done === undefined) return
  open.value = false
  renew(client, 'slip')
}
</script>

<template>
  <section v-if="offered" class="no-print" aria-labelledby="carry">
    <button
      id="carry"
      type="button"
      class="act"
      :aria-expanded="open"
      aria-controls="carry-form"
      @click="open = !open"
    >
      {{ say('carry.open') }}
    </button>
    <form v-if="open" id="carry-form" @submit.prevent="go">
      <p class="dim">{{ say('carry.what') }}</p>
      <FileField :label="say('carry.file')" accept=".tar,.img" @chosen="chosen" />
      <p v-if="images.length === 0" role="status">{{ say('carry.none') }}</p>
      <div v-else class="row">
        <label>
          {{ say('carry.archive') }}
          <select v-model="archive">
            <option value="" />
            <option v-for="one in images" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </label>
        <label>
          {{ say('carry.into') }}
          <select v-model="into">
            <option value="" />
            <option v-for="[key, title] in packages" :key="key" :value="key">{{ title }}</option>
          </select>
        </label>
        <button
          type="submit"
          class="act"
          :disabled="archive === '' || into === '' || carry.isPending.value"
        >
          {{ say(carry.isPending.value ? 'carry.compares' : 'carry.go') }}
        </button>
      </div>
      <Trouble v-if="shelf.error.value" :trouble="troubleOf(shelf.error.value)" quiet />
      <Trouble v-if="carry.error.value" :trouble="troubleOf(carry.error.value)" quiet />
    </form>
  </section>
</template>

<style scoped>
section {
  margin: 14px 0 0;
}
form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
form p {
  margin: 4px 0 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: end;
}
label:has(select) {
  display: grid;
  gap: 3px;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 3px 10px;
  min-width: 200px;
  max-width: 100%;
}
</style>
