<script lang="ts">
/**
 * A run while it goes on, for who stands at arm's length: the state, what the device shows, the wall, the
 * pace, what happened, what comes by itself, and the ways to stop it. Nothing moves but the figures.
 */
</script>

<script setup lang="ts">
import type { Job, RunShown } from '@plain-slate/api'
import { houseFor, partitionOf } from '@plain-slate/core'
import { evidenceWords, passedWords, rangeWords, runTitle, stepWords } from '@plain-slate/texts'
import { useNow } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'
import HoldPower from '../../bench/HoldPower.vue'
import RunAgainst from '../../bench/RunAgainst.vue'
import RunWaits from '../../bench/RunWaits.vue'
import RunActs from '../../bench/RunActs.vue'
import RunParts from '../../bench/RunParts.vue'
import PaceBand from '../../pictures/PaceBand.vue'
import Wall from '../../pictures/Wall.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import Remedies from '../sheet/Remedies.vue'
import ShowsElse from '../sheet/ShowsElse.vue'
import WayCard from '../way/WayCard.vue'
import StopKey from './StopKey.vue'
import WaitsFor from './WaitsFor.vue'
import { useAwake, useCall } from './awake.ts'
import { liveCourse } from './live-wall.ts'

const props = defineProps<{ run: RunShown; job: Job }>()
const rules = useRead('house')
/** The house as it is for this slip. */
const house = computed(() => {
  const data = rules.data.value?.rules
  const lines = new Map(props.job.lines.map((one) => [one.topic, { ...one, at: 0 }]))
  return data === undefined ? undefined : houseFor(data, lines)
})
const say = useSay()
const { time } = useShop()
const run = toRef(props, 'run')
const LINES = 5
const going = computed(() => run.value.state === 'running' || run.value.state === 'wanted')
const step = computed(() => run.value.steps.find(({ number }) => number === run.value.step))
const share = computed(() => (run.value.size === 0 ? undefined : run.value.got / run.value.size))
/** Silence goes on between two answers of the server: it is counted from the newest one. */
const tick = useNow({ interval: 1000 })
const answered = ref(performance.now())
watch(run, () => (answered.value = performance.now()))
const quiet = computed(() =>
  going.value && tick.value ? run.value.quiet + (performance.now() - answered.value) / 1000 : 0,
)
const driven = computed(() => going.value && !run.value.ownerless && run.value.word !== 'in-doubt')
const log = computed(() => run.value.log.slice(-LINES))
const then = computed(() => run.value.steps.filter(({ number }) => number > run.value.step))
const byItself = computed(() => {
  const hands = then.value.findIndex((one) => one.hands)
  const alone = hands < 0 ? then.value : then.value.slice(0, hands)
  /* Pieces of one partition are one thing to whoever waits. */
  const about = (one: (typeof alone)[number]) => `${one.kind} ${partitionOf(one) ?? ''}`
  const seen = new Set(step.value === undefined ? [] : [about(step.value)])
  const next = alone.filter((one) => !seen.has(about(one)) && seen.add(about(one)))
  return next.slice(0, 3).map((one) => stepWords(say, one))
})
const nextHands = computed(() => then.value.find((one) => one.hands))
/** A key that its system will ask for: until it is pressed nothing hears it. */
const goOn = computed(() =>
  then.value.find(({ kind, facts }) => kind === 'by-hand' && facts['what'] === 'go-on'),
)
/** Wiped in this run, it may ask for the account that was on it. */
const asksAccount = computed(
  () =>
    props.job.family?.asksAccount === true &&
    run.value.steps.some(({ facts }) => 'wiped' in facts && facts.wiped === 'true'),
)
const leaves = computed(() => say(`strip.${then.value[0]?.worst ?? 'unaffected'}`))
const source = computed(() => {
  const now = step.value
  if (now === undefined) return ''
  if (now.source === 'own') return say('write.pace.own', { n: now.n })
  return say(`write.pace.${now.source}`)
})
/** One word large, so that it reads from two metres; what it is at stands under it. */
const PLAIN: readonly string[] = ['hands-off', 'hands-now']
const isPlain = computed(() => driven.value && PLAIN.includes(run.value.word))
const title = computed(() =>
  isPlain.value ? say(`port.${run.value.word}`) : runTitle(say, run.value),
)
const under = computed(() =>
  isPlain.value && step.value !== undefined ? stepWords(say, step.value) : '',
)
/** A transfer was under way: a cable may be what failed. */
const trouble = computed(() => (run.value.size > 0 ? 'transfer' : 'unseen'))
/** Wiped and started, it is heard by nobody before its set-up: a loss there ends only by hands. */
const startsEmpty = computed(() => {
  const now = step.value
  const waits = going.value && run.value.word === 'in-doubt'
  return waits && now?.kind === 'first-start' && now.facts.wiped === 'true'
})
/** Another device hangs at its port than the run is of. */
const hangsOther = computed(() => {
  const seen = run.value.waiting?.seen ?? null
  return seen !== null && seen.serial !== run.value.serial
})
const attended = computed(() => going.value && !run.value.ownerless)
const awake = useAwake(attended)
const CALLING: readonly string[] = ['hands-now', 'in-doubt', 'stopped', 'done']
const calling = computed(() =>
  CALLING.includes(run.value.word)
    ? say('write.called', { number: props.job.number, what: say(`port.${run.value.word}`) })
    : undefined,
)
const call = useCall(calling)
</script>

<template>
  <div :data-state="run.word">
    <div class="top">
      <h1 aria-live="polite">{{ title }}</h1>
      <p v-if="driven" class="left">
        <b class="mono">{{ rangeWords(say, run.left) }}</b> {{ say('write.left.time') }}
      </p>
    </div>
    <p v-if="under !== ''" class="shows">{{ under }}</p>
    <p v-if="driven && run.looks" class="shows">
      {{ say('write.now') }} <b>{{ run.looks.says }}</b>.
      <ShowsElse :job="job" :wanted="run.looks.mode" />
    </p>
    <WayCard
      v-if="driven && run.asked !== null && run.way"
      :to="run.way.to.id"
      :begin="run.way.from?.id"
    />
    <p v-if="run.says" role="status" class="shows">{{ say('run.says', { text: run.says }) }}</p>
    <RunAgainst :run="run" />
    <HoldPower v-if="run.hold" :part="run.hold" />
    <StopKey :run="run" :active="driven" />
    <p v-if="run.ownerless">{{ say('run.ownerless.do') }}</p>
    <template v-else-if="run.word === 'in-doubt'">
      <p>{{ say('run.waiting.do') }}</p>
      <WaitsFor v-if="run.waiting" :waiting="run.waiting" :serial="run.serial" />
      <Remedies
        :job="job"
        :trouble="trouble"
        :house="house"
        :since="run.startedAt"
        :lost-before="run.losses > 1"
        :in-doubt="run.hold !== null"
      />
    </template>
    <RunWaits v-else-if="hangsOther && run.waiting" :waiting="run.waiting" :serial="run.serial" />
    <p v-if="startsEmpty">{{ say('run.waiting.set-up') }}</p>
    <RunParts v-if="run.state === 'stopped' || (going && !driven)" :run="run" />
    <Wall :partitions="run.wall" :courses="[liveCourse(say, run)]" />
    <template v-if="driven && step">
      <h2>
        {{ say('write.pace') }} <small>{{ source }}</small>
      </h2>
      <PaceBand
        :range="step.seconds"
        :passed="run.stepSeconds"
        :share="share"
        :quiet="quiet"
        :limit="step.silent ?? undefined"
        :waits="house?.silence === 'wait'"
      />
      <p v-if="run.waiting?.mode?.kind === 'system'">
        {{ say('run.waiting.permission') }}
        <template v-if="asksAccount">{{ say('run.waiting.account') }}</template>
        <template v-if="goOn">{{
          say('run.waiting.key', { step: stepWords(say, goOn) })
        }}</template>
      </p>
    </template>
    <h2 id="happened">
      {{ say('write.happened') }} <small>{{ say('write.happened.small') }}</small>
    </h2>
    <p v-if="log.length === 0" class="dim">{{ say('write.happened.none') }}</p>
    <table v-else class="rows log" aria-labelledby="happened">
      <tbody>
        <tr v-for="(line, at) in log" :key="at">
          <td class="mono">{{ time(line.at) }}</td>
          <td>{{ stepWords(say, line) }}</td>
          <td class="dim">{{ evidenceWords(say, line.evidence) }}</td>
          <td class="mono">{{ line.seconds === null ? '' : passedWords(say, line.seconds) }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="driven">
      <p v-if="byItself.length > 0">{{ say('write.then', { steps: byItself.join(', ') }) }}</p>
      <p v-if="nextHands">{{ say('write.then.hands', { step: stepWords(say, nextHands) }) }}</p>
    </template>
    <RunActs :run="run">
      <template v-if="driven" #stop>
        <kbd>{{ say('write.stop.hint') }}</kbd>
        {{ say('write.stop.leaves', { leaves, waits: run.asked === null ? 'no' : 'yes' }) }}
        {{ say('write.smoke') }}
      </template>
    </RunActs>
    <p v-if="attended" class="small dim">
      {{ say(awake.kept.value ? 'write.awake' : 'write.awake.not') }}
      <button v-if="!call.on.value" type="button" class="act" @click="call.ask">
        {{ say('write.call') }}
      </button>
      <template v-else>{{ say('write.call.on') }}</template>
    </p>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px 20px;
}
h1 {
  font-size: 36px;
}
.left {
  font-size: 17px;
  color: var(--ink-2);
  margin: 0;
}
.left b {
  font-size: 30px;
  color: var(--ink);
}
.shows {
  font-size: 18px;
}
p {
  margin: 0 0 8px;
}
.log td {
  padding-top: 4px;
  padding-bottom: 4px;
}
</style>
