<script lang="ts">
/** A device comes in: what is known now is enough to open a slip. */
</script>

<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { useChange } from '../../server/query.ts'
import type { HeadDraft } from './head.ts'
import SlipFields from './SlipFields.vue'
import { problemsOf } from './problems.ts'

const EMPTY: HeadDraft = {
  device: '',
  model: '',
  customer: '',
  intent: 'restore',
  promise: '',
  words: '',
  due: '',
}
const say = useSay()
const router = useRouter()
/** Kept in the browser until the slip is open: a reload or a sign-off loses nothing. */
const draft = useLocalStorage<HeadDraft>('plain-slate-new-slip', EMPTY)
const open = useChange('slipOpen')
const trouble = computed(() =>
  open.error.value === null ? undefined : troubleOf(open.error.value),
)

async function go() {
  if (open.isPending.value) return
  const body = { ...draft.value, intent: draft.value.intent as 'restore' }
  const slip = await open.mutateAsync({ body }).catch(() => undefined)
  if (slip === undefined) return
  draft.value = EMPTY
  await router.push(`/slips/${slip.number}`)
}
</script>

<template>
  <h1>{{ say('slip.new.title') }}</h1>
  <p class="lede">{{ say('slip.new.lede') }}</p>
  <form @submit.prevent="go">
    <SlipFields v-model="draft" :problems="problemsOf(trouble)" focus-first />
    <Trouble v-if="trouble" :trouble="trouble" quiet />
    <p class="row go">
      <v-btn type="submit" :disabled="open.isPending.value">
        {{ say('slip.new.go') }}<kbd>Enter</kbd>
      </v-btn>
    </p>
  </form>
</template>

<style scoped>
.go {
  margin-top: 14px;
}
</style>
