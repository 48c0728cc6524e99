<script lang="ts">
/**
 * A stage's sheet: its headline, its sentence, then its evidence; what it waits for where it is not
 * reached; what would have to be done again where it is behind; and the one main action, which Enter does.
 */
export type MainAct = {
  readonly label: string
  readonly act: () => void
  readonly busy?: boolean
  /** The sheet has a place of its own for its button. */
  readonly placed?: boolean
}
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import type { Stage } from '@plain-slate/core'
import { STAGES, isOver } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useMainAction } from '../../keys/shortcuts.ts'
import Resource from '../../parts/Resource.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import { fieldOf } from '../../time/words.ts'
import { standingOf, useJob, useStageWords } from '../job.ts'
import { useSlip } from '../slip.ts'

const props = defineProps<{
  stage: Stage
  title: (job: Job) => string
  lede?: (job: Job) => string
  /** The sheet's own main action; the next stage's is offered where there is none. */
  main?: MainAct | undefined
  error?: Error | null
  /** Shown although an earlier stage is not done: what is there is worth looking at. */
  early?: boolean
}>()
defineSlots<{ default: (scope: { job: Job }) => unknown; beside: () => unknown }>()
const say = useSay()
const router = useRouter()
const client = useQueryClient()
const { now, when, zone } = useShop()
const { job, number } = useJob()
const { slip } = useSlip()
const words = useStageWords()
const state = useChange('slipState')
const standing = computed(() => standingOf(job.data.value, props.stage))
const waits = computed(() => standing.value?.is === 'waits' && props.early !== true)
const ended = computed(() => {
  const now = slip.data.value?.state
  return isOver(now) ? now : undefined
})
const at = computed(() => job.data.value?.at ?? 'intake')
const spared = computed(() => standing.value?.says === 'cured')
const next = computed(() =>
  STAGES.slice(STAGES.indexOf(props.stage) + 1).find(
    (stage) => standingOf(job.data.value, stage)?.says !== 'cured',
  ),
)
const address = (stage: Stage) => `/slips/${number.value}/${stage}`
const goes = computed<MainAct | undefined>(() => {
  if (waits.value)
    return {
      label: say('job.waits.go', { at: say(`stage.${at.value}`) }),
      act: () => void router.push(address(at.value)),
    }
  if (props.main !== undefined && !spared.value) return props.main
  const to = next.value
  if (standing.value?.is !== 'done' || to === undefined) return undefined
  return {
    label: say('job.next', { stage: say(`stage.${to}`) }),
    act: () => void router.push(address(to)),
  }
})
useMainAction(() => {
  if (goes.value?.busy !== true) goes.value?.act()
})
const behind = computed(() => {
  const { data } = job
  if (data.value === undefined || standing.value?.is === 'waits') return ''
  if (STAGES.indexOf(props.stage) >= STAGES.indexOf(data.value.at)) return ''
  const { plan, run } = data.value
  if (run !== null) return say('job.behind.run')
  if (plan === null || STAGES.indexOf(props.stage) >= STAGES.indexOf('plan')) return ''
  return say('job.behind.plan', { when: when(plan.at), by: plan.by ?? say('slip.by.shell') })
})
const whyWaits = computed(() => {
  const now = standingOf(job.data.value, at.value)
  return now === undefined ? '' : words(now)
})
async function reopen() {
  const body = { state: 'open', reason: '' } as const
  await state.mutateAsync({ params: { number: number.value }, body }).catch(() => undefined)
  renew(client, 'slip')
}
</script>

<template>
  <Resource v-slot="{ data }" :read="job">
    <p v-if="slip.data.value" class="print-only small">
      {{
        say('job.printed', {
          number,
          device: slip.data.value.device,
          customer: slip.data.value.customer ?? '',
          stage: say(`stage.${stage}`),
          at: fieldOf(now, zone).replace('T', ' '),
        })
      }}
    </p>
    <p v-if="ended" class="amiss" role="status">
      {{ say('job.ended', { state: say(`state.${ended}`) }) }}
      <button v-if="ended !== 'closed'" type="button" class="act no-print" @click="reopen">
        {{ say('job.ended.open') }}
      </button>
    </p>
    <template v-if="waits">
      <h1>
        {{ say('job.waits.title', { stage: say(`stage.${stage}`), at: say(`stage.${at}`) }) }}
      </h1>
      <p class="lede">
        {{ say('job.waits.now', { at: say(`stage.${at}`), why: whyWaits }) }}
        {{ say(`stage.${stage}.will`) }}
      </p>
    </template>
    <template v-else-if="spared && standing">
      <h1>{{ say('job.cured.title', { stage: say(`stage.${stage}`) }) }}</h1>
      <p class="lede">{{ words(standing) }}</p>
    </template>
    <template v-else>
      <h1>{{ title(data) }}</h1>
      <p v-if="lede" class="lede">{{ lede(data) }}</p>
      <p v-if="behind !== ''" class="behind">
        {{ say('job.behind', { at: say(`stage.${at}`), what: behind }) }}
      </p>
      <slot :job="data" />
    </template>
    <Trouble v-if="error" :trouble="troubleOf(error)" quiet />
    <p v-if="goes && goes.placed !== true" class="row go no-print">
      <v-btn :disabled="goes.busy === true" @click="goes.act">
        {{ goes.label }}<kbd>Enter</kbd>
      </v-btn>
      <slot name="beside" />
    </p>
  </Resource>
</template>

<style scoped>
.go {
  margin-top: 16px;
}
.behind {
  border-left: 3px solid var(--line);
  padding: 2px 0 2px 10px;
  margin: 0 0 10px;
  color: var(--ink-2);
  max-width: 76ch;
}
</style>
