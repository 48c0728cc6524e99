<script lang="ts">
/**
 * Changing a head. What others write meanwhile appears by itself; where two wrote the same field both
 * versions are shown, and the person chooses.
 */
</script>

<script setup lang="ts">
import type { Slip, SlipField, Theirs } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import Trouble from '../../parts/Trouble.vue'
import { useMainAction } from '../../keys/shortcuts.ts'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import Conflict from './Conflict.vue'
import SlipFields from './SlipFields.vue'
import type { HeadDraft } from './head.ts'
import { changeOf, changedFields, draftOf, follow, settle } from './head.ts'
import { problemsOf } from './problems.ts'
import { keepDraft, keptDraft } from './kept.ts'

const props = defineProps<{ slip: Slip }>()
const emit = defineEmits<{ done: [] }>()
const say = useSay()
const client = useQueryClient()
const save = useChange('slipChange')

const kept = keptDraft(props.slip.number)
const base = shallowRef<HeadDraft>(kept?.base ?? draftOf(props.slip))
const draft = ref<HeadDraft>(kept?.draft ?? draftOf(props.slip))
const theirs = ref<readonly Theirs[]>([])

const changed = computed(() => changedFields(base.value, draft.value))
const trouble = computed(() => {
  if (save.error.value === null) return undefined
  const told = troubleOf(save.error.value)
  return told.code === 'slip.conflict' && theirs.value.length === 0 ? undefined : told
})

watch(
  () => props.slip,
  (slip) => {
    const after = follow(base.value, draft.value, slip)
    base.value = after.base
    draft.value = after.draft
  },
)
watch([base, draft], () => keepDraft(props.slip.number, base.value, draft.value))

async function go() {
  if (changed.value.length === 0 || save.isPending.value) return
  const { number } = props.slip
  try {
    const slip = await save.mutateAsync({
      params: { number },
      body: changeOf(base.value, draft.value),
    })
    base.value = draftOf(slip)
    draft.value = draftOf(slip)
    theirs.value = []
    keepDraft(number, base.value, draft.value)
    renew(client, 'slip')
    emit('done')
  } catch (error) {
    theirs.value = troubleOf(error).theirs ?? []
  }
}
useMainAction(() => void go())

function decide(one: Theirs, whose: 'theirs' | 'mine') {
  const after = settle(base.value, draft.value, one, whose)
  base.value = after.base
  draft.value = after.draft
  theirs.value = theirs.value.filter((other) => other.field !== one.field)
  if (theirs.value.length === 0) save.reset()
}
function leave() {
  draft.value = base.value
  keepDraft(props.slip.number, base.value, draft.value)
  emit('done')
}
onBeforeRouteLeave(() => keepDraft(props.slip.number, base.value, draft.value))
</script>

<template>
  <form @submit.prevent="go">
    <h2>
      {{ say('slip.head') }}
      <small v-if="changed.length > 0" role="status">{{ say('slip.head.unsaved') }}</small>
    </h2>
    <SlipFields v-model="draft" :problems="problemsOf(trouble)" focus-first />
    <Conflict
      v-for="one in theirs"
      :key="one.field"
      :theirs="one"
      :mine="draft[one.field as SlipField]"
      @decide="(whose) => decide(one, whose)"
    />
    <Trouble v-if="trouble" :trouble="trouble" quiet />
    <p class="row go no-print">
      <v-btn type="submit" :disabled="changed.length === 0 || theirs.length > 0">
        {{ say('slip.head.save') }}<kbd>Enter</kbd>
      </v-btn>
      <v-btn variant="outlined" @click="leave">{{ say('slip.head.leave') }}</v-btn>
    </p>
  </form>
</template>

<style scoped>
.go {
  margin-top: 14px;
}
</style>
