<script lang="ts">
/** Readings: over the link, by hand with their source, and how they weigh against each other. */
</script>

<script setup lang="ts">
import type { Job, NextShown } from '@plain-slate/api'
import { LETHAL_FACTS, isNoStart } from '@plain-slate/core'
import type { Mode } from '@plain-slate/core'
import { endOf, mib } from '@plain-slate/texts'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import Trouble from '../../parts/Trouble.vue'
import Ruler from '../../pictures/Ruler.vue'
import { useSay } from '../../base/said.ts'
import { askedAt } from '../sheet/Ask.vue'
import BeforeLeaving from '../sheet/BeforeLeaving.vue'
import Dues from '../sheet/Dues.vue'
import FactRows from '../sheet/FactRows.vue'
import HandReading from '../sheet/HandReading.vue'
import NextReading from '../sheet/NextReading.vue'
import SeenText from '../sheet/SeenText.vue'
import Stands from '../sheet/Stands.vue'
import type { MainAct } from '../sheet/StageSheet.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { standingOf, useJob } from '../job.ts'
import { useLook } from '../sheet/look.ts'
import { useSlip } from '../slip.ts'
import WayCard from '../way/WayCard.vue'
import WayChoice from '../way/WayChoice.vue'

const say = useSay()
const { job, number, may, tell, line } = useJob()
const router = useRouter()
const { slip } = useSlip()
const { look, looking: busy, trouble } = useLook()
const PLACED = 3

/** Facts that cannot be judged on as they stand. */
const openFacts = ({ facts }: Job) =>
  facts
    .filter(
      ({ kind, fact }) => kind !== 'settled' && !(kind === 'told' && !LETHAL_FACTS.includes(fact)),
    )
    .map(({ fact }) => fact)

function title(data: Job): string {
  const now = standingOf(data, 'readings')
  if (data.family === null) {
    const model = slip.data.value?.model ?? null
    return model === null ? say('readings.title.unknown') : say('readings.title.other', { model })
  }
  const open = data.facts.filter(({ needed, fact }) => needed && openFacts(data).includes(fact))
  if (now?.is === 'open') {
    const names = open.slice(0, PLACED).map(({ fact }) => say(`fact.${fact}`))
    const which = open.length > PLACED ? `${names.join(', ')} …` : names.join(', ')
    return say('readings.title.open', { n: open.length, which })
  }
  const n = data.facts.filter(({ needed }) => needed).length - open.length
  return say('readings.title.done', { n })
}
const lede = (data: Job) => say(data.family === null ? 'readings.other.do' : 'readings.lede')
/** What Enter does: what is worth reading next, as long as something is open; else the one device it can be. */
const main = computed(() => {
  const data = job.data.value
  if (data === undefined || !may.value) return
  if (wayTo.value !== undefined) return { label: '', act: () => way.value?.next(), placed: true }
  if (standingOf(data, 'readings')?.is === 'done') {
    const { device, family } = data
    if (!standsUntold(data) || !device?.port || !family?.shows) return
    return reads(say('readings.deep', { mode: family.shows }), device.port, true)
  }
  const [next] = data.next
  const at = placeOf(data)
  if (next !== undefined) return { ...mainFor(data, next, at), placed: true }
  /* It was read, nothing is worth reading next, and something is open: whether it starts decides what is waited for. */
  if (data.device !== null && line('history.starts') === undefined)
    return { label: say('readings.starts'), act: () => void router.push(startsAt.value) }
  return at === undefined ? undefined : reads(say('readings.read', at), at.port, false)
})
/** What a dead system cannot tell its digests do: they are read once, before anything is chosen by what stands on it. */
const standsUntold = ({ device, family, look: last, run, leave }: Job): boolean =>
  isNoStart(line('history.starts')?.answer) &&
  run === null &&
  device?.mode?.name !== family?.shows &&
  last?.deep !== true &&
  (leave?.open ?? 0) === 0
const startsAt = computed(() => `/slips/${number.value}/intake${askedAt('history.starts')}`)
const reads = (label: string, port: string, deep: boolean): MainAct => ({
  label: busy.value ? say('readings.reading') : label,
  act: () => void look(port, deep),
  busy: busy.value,
})
/** The one port at which it answers, or the only one that can be it: of the model that its slip names. */
function placeOf({ device, ports }: Job): { port: string; mode: string | undefined } | undefined {
  if (device !== null)
    return device.port === null ? undefined : { port: device.port, mode: device.mode?.id }
  const [one, ...others] = ports
  const model = slip.data.value?.model ?? null
  if (one === undefined || others.length > 0 || (model !== null && model !== one.model))
    return undefined
  return { port: one.name, mode: one.mode.id }
}
/** A look where the link tells it, here or where commands lead; the form where eyes do. */
function mainFor({ family, leave }: Job, next: NextShown, at: ReturnType<typeof placeOf>): MainAct {
  const fact = say(`fact.${next.fact}`)
  if (next.source !== 'link')
    return { label: say('next.hand', { fact }), act: () => void hand.value?.put(next) }
  if (at !== undefined && next.mode?.id === at.mode)
    return reads(say('next.look', { fact, port: at.port }), at.port, false)
  const mode = next.mode?.name ?? ''
  const deep = next.byCommand && family?.shows === mode
  const open = leave?.open ?? 0
  if (open > 0)
    return {
      label: say('leave.first', { mode: leave?.mode ?? '', n: open }),
      act: () => first.value?.focus(),
    }
  if (at !== undefined && deep) return reads(say('next.deep', { fact, mode }), at.port, true)
  const to = next.mode?.id
  return { label: say('next.way', { mode }), act: () => goes(to) }
}
/** The mode whose way is shown; while it is, Enter goes from act to act. */
const wayTo = ref<Mode>()
/** Shown for a reading, and no longer once nothing is to be read; one that somebody asked for stays. */
const forReading = ref(false)
function goes(to: Mode | undefined) {
  wayTo.value = to
  forReading.value = true
}
function chosen(to: Mode) {
  wayTo.value = to
  forReading.value = false
}
watch(
  () => job.data.value !== undefined && standingOf(job.data.value, 'readings')?.is === 'done',
  (done) => {
    if (done && forReading.value) wayTo.value = undefined
  },
)
const way = useTemplateRef<InstanceType<typeof WayCard>>('way')
const first = useTemplateRef<InstanceType<typeof BeforeLeaving>>('first')
const hand = useTemplateRef<InstanceType<typeof HandReading>>('hand')
/** It was to go where more is shown, and would not. */
const stayed = ({ look: last }: Job): boolean =>
  last?.deep === true && last.found !== null && !last.found.table
const doubtedWords = ({ doubted }: Job) =>
  doubted.map((fact) => say(`fact.${fact as 'board'}`)).join(', ')
const segments = (data: Job) =>
  (data.build ?? []).map((one) => ({ ...one, mark: 'plain' as const }))
const buildText = (data: Job) =>
  String(data.facts.find(({ fact }) => fact === 'build')?.value ?? '')
</script>

<template>
  <StageSheet stage="readings" :title="title" :lede="lede" :main="main">
    <template #default="{ job: data }">
      <Trouble v-if="trouble" :trouble="trouble" quiet />
      <NextReading :next="data.next">
        <p v-if="main?.placed && !wayTo" class="row go no-print">
          <v-btn :disabled="main.busy === true" @click="main.act"
            >{{ main.label }}<kbd>Enter</kbd></v-btn
          >
        </p>
      </NextReading>
      <BeforeLeaving
        v-if="data.leave && !wayTo"
        ref="first"
        :leave="data.leave"
        :permission="data.family?.permission ?? ''"
        :steps="data.family?.permissionSteps ?? []"
      />
      <template v-if="wayTo">
        <WayCard ref="way" :to="wayTo" @arrived="wayTo = undefined" />
        <p class="row no-print">
          <button type="button" class="act" @click="wayTo = undefined">
            {{ say('way.close') }}
          </button>
        </p>
      </template>
      <WayChoice v-else-if="data.family" :modes="data.family.looks" @chosen="chosen" />
      <p v-if="stayed(data)" class="amiss" role="status" data-claim="stayed">
        {{
          say('readings.stayed', {
            mode: data.family?.shows ?? '',
            what: data.family?.permission ?? '',
          })
        }}
      </p>
      <h2>
        {{ say('readings.over-link') }} <small>{{ say('readings.over-link.small') }}</small>
      </h2>
      <template v-if="data.device">
        <p>
          {{
            data.device.port
              ? say('readings.device', {
                  port: data.device.port,
                  end: endOf(data.device.serial),
                  mode: data.device.mode?.name ?? '',
                })
              : say('readings.device.away', { end: endOf(data.device.serial) })
          }}
          {{
            say('readings.evidence', {
              n: data.device.digests,
              table: data.device.table ? say('readings.evidence.table') : '',
            })
          }}
          <template v-if="data.tally.before">
            {{
              say('readings.tally', {
                items: data.tally.before.items,
                size: say('run.mib', { n: mib(data.tally.before.bytes) }),
                opens: say(
                  data.tally.before.opens ? 'readings.tally.opens' : 'readings.tally.closed',
                ),
              })
            }}
          </template>
        </p>
        <p v-if="data.device.shows">
          {{ say('plan.rehearsed.shows', { shows: data.device.shows }) }}
        </p>
        <p v-if="data.device.marks.length > 0">
          {{ say('readings.marks', { marks: data.device.marks.join('; ') }) }}
        </p>
        <p v-if="may && data.device.port && data.run === null" class="row no-print">
          <v-btn variant="outlined" :disabled="busy" @click="look(data.device.port ?? '', false)">{{
            say('readings.read', { port: data.device.port })
          }}</v-btn>
          <v-btn
            v-if="data.family?.shows"
            variant="outlined"
            :disabled="busy || (data.leave?.open ?? 0) > 0"
            @click="look(data.device.port ?? '', true)"
            >{{ say('readings.deep', { mode: data.family.shows }) }}</v-btn
          >
          <span class="dim small">{{
            busy ? say('readings.reading') : say('readings.deep.hint')
          }}</span>
        </p>
      </template>
      <template v-else>
        <p>
          {{ say(data.ports.length === 0 ? 'readings.device.none' : 'readings.which') }}
        </p>
        <ul v-if="may" class="ports no-print">
          <li v-for="port in data.ports" :key="port.name">
            <button type="button" class="act" :disabled="busy" @click="look(port.name, false)">
              {{
                say('readings.read.one', {
                  model: port.model,
                  end: endOf(port.serial),
                  port: port.name,
                  mode: port.mode.name,
                })
              }}
            </button>
          </li>
        </ul>
      </template>
      <template v-if="data.build">
        <h2>{{ say('readings.build') }}</h2>
        <Ruler :segments="segments(data)" :label="buildText(data)" />
      </template>
      <section v-if="data.doubted.length > 0" class="amiss" data-claim="eye">
        <h2>{{ say('readings.eye.title') }}</h2>
        <p>{{ say('readings.eye', { facts: doubtedWords(data) }) }}</p>
        <p v-if="may" class="no-print">
          <v-btn variant="outlined" @click="tell([{ topic: 'eye.board', answer: 'as-read' }])">{{
            say('readings.eye.done')
          }}</v-btn>
        </p>
      </section>
      <FactRows :facts="data.facts" :may="may && data.run === null" />
      <Dues :dues="data.dues" :only="['lock']" />
      <Stands :job="data" />
      <SeenText :seen="data.seen" />
      <HandReading v-if="may && data.run === null" ref="hand" :facts="data.facts" />
    </template>
  </StageSheet>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.ports {
  list-style: none;
  margin: 0;
  padding: 0;
}
.ports li {
  padding: 4px 0;
}
</style>
