<script lang="ts">
/** First start: facts against promise, the tally before and after, a loop told by its returns, the test again. */
</script>

<script setup lang="ts">
import Columns from '../../parts/Columns.vue'
import type { Job } from '@plain-slate/api'
import { FUNCTIONS, TOPICS, sameTally } from '@plain-slate/core'
import { mib, worseWords } from '@plain-slate/texts'
import { computed, ref } from 'vue'
import Resource from '../../parts/Resource.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import AllAtOnce from '../sheet/AllAtOnce.vue'
import Ask from '../sheet/Ask.vue'
import AskGroup from '../sheet/AskGroup.vue'
import MoreWork from '../sheet/MoreWork.vue'
import Remedies from '../sheet/Remedies.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { useLineWords } from '../../parts/line-words.ts'
import { standingOf, useJob } from '../job.ts'
import { useLook } from '../sheet/look.ts'

const say = useSay()
const words = useLineWords()
const { when } = useShop()
const { job, params, may, line, tell, put } = useJob()
const proof = useRead('jobProof', () => ({ params: params.value }))
const { look, looking, trouble } = useLook()
const facts = computed(() => proof.data.value?.facts ?? [])
const wrong = computed(() => facts.value.filter(({ holds }) => holds === false))
const asked = computed(() => facts.value.some(({ now }) => now !== null))

function title(data: Job): string {
  const cured = standingOf(data, 'write')
  if (cured?.says === 'cured') return say('first.title.cured', { by: String(cured.facts['by']) })
  if (data.device?.outcome === 'loop') return say('first.title.loop', { n: data.device.returns })
  if (!asked.value) return say('first.title.wait')
  const [first] = wrong.value
  if (first !== undefined)
    return say('first.title.not', {
      what: say('plan.change', {
        what: say(`fact.${first.fact as 'build'}`),
        from: String(first.promised ?? ''),
        to: String(first.now ?? ''),
      }),
    })
  if (data.worse.length > 0) return say('first.title.worse', { n: data.worse.length })
  const build = facts.value.find(({ fact }) => fact === 'build')
  return say('first.title.done', { build: String(build?.now ?? '') })
}
const lede = (data: Job) => say(data.device?.outcome === 'loop' ? 'first.loop.do' : 'first.lede')
const main = computed(() => {
  const data = job.data.value
  if (data === undefined || data.tally.after !== null || !may.value) return
  const port = data.device?.port ?? null
  if (port === null) return
  return { label: say('first.read'), act: () => void look(port, false), busy: looking.value }
})
function tally({ tally: { before, after } }: Job): string {
  if (before === null) return say('first.tally.none')
  const about = { items: before.items, size: say('run.mib', { n: mib(before.bytes) }) }
  if (after === null) return say('first.tally.after', about)
  if (!sameTally(before, after))
    return say('first.tally.differs', { before: before.items, after: after.items })
  const opens = say(after.opens ? 'readings.tally.opens' : 'readings.tally.closed')
  return say('first.tally.same', { ...about, opens })
}
const DATA = TOPICS.filter(({ topic }) => topic === 'after.data')
const TESTS = FUNCTIONS.flatMap((one) =>
  TOPICS.filter(({ topic }) => topic === `after.${one}`).map(({ topic, answers }) => ({
    topic,
    answers: [...answers],
    name: null,
    needed: true,
  })),
)
const before = (topic: string) => line(topic.replace('after.', 'function.'))?.answer
/** Tests as they were found before, by name, but those that were answered otherwise. */
const asBefore = computed(() =>
  TESTS.map(({ topic }) => ({ topic, answer: before(topic) ?? '' })).filter(
    ({ topic, answer }) => answer !== '' && [undefined, answer].includes(line(topic)?.answer),
  ),
)
const asBeforeWords = computed(() =>
  say('first.as-before', {
    tests: asBefore.value
      .map(({ topic, answer }) =>
        say('first.as-before.one', { name: words.topic(topic), answer: words.answer(answer) }),
      )
      .join(', '),
  }),
)
const reason = ref('')
const decision = computed(() => line('decided.first-start'))
async function decide() {
  const note = reason.value.trim()
  if (note === '') return
  await tell([{ topic: 'decided.first-start', answer: 'accepted', note }])
  reason.value = ''
}
const text = (fact: string, value: string | number | null) => {
  if (value === null) return say('first.unasked')
  return fact === 'outcome' ? say(`outcome.${String(value) as 'loop'}`) : String(value)
}
</script>

<template>
  <StageSheet stage="first-start" :title="title" :lede="lede" :main="main" :error="put.error.value">
    <template #default="{ job: data }">
      <Trouble v-if="trouble" :trouble="trouble" quiet />
      <Remedies
        v-if="data.device?.outcome === 'loop'"
        :job="data"
        trouble="loop"
        :house="undefined"
      />
      <Resource v-slot="{ data: now }" :read="proof">
        <h2 id="proof">{{ say('first.facts') }}</h2>
        <Columns
          by="proof"
          :scrolls="say('first.facts')"
          :columns="[
            say('first.fact'),
            say('first.was'),
            say('first.promised'),
            say('first.now'),
            say('first.verdict'),
          ]"
        >
          <tr v-for="one in now.facts" :key="one.fact" :data-fact="one.fact">
            <td>{{ say(`fact.${one.fact as 'build'}`) }}</td>
            <td class="mono">{{ one.was ?? '' }}</td>
            <td class="mono">{{ text(one.fact, one.promised) }}</td>
            <td class="mono">{{ text(one.fact, one.now) }}</td>
            <td :class="{ holds: one.holds === true, not: one.holds === false }">
              {{ one.holds === null ? '' : say(one.holds ? 'first.holds' : 'first.not') }}
            </td>
          </tr>
        </Columns>
      </Resource>
      <h2>{{ say('first.tally') }}</h2>
      <p data-claim="tally">{{ tally(data) }}</p>
      <h2>{{ say('first.data') }}</h2>
      <Ask
        v-for="one in DATA"
        :key="one.topic"
        :topic="one.topic"
        :name="words.topic(one.topic)"
        :answers="one.answers"
        :line="line(one.topic)"
        needed
        :may="may"
        @tell="(answer) => tell([{ topic: one.topic, answer }])"
      />
      <AskGroup group="after" :topics="TESTS">
        <AllAtOnce :label="asBeforeWords" :lines="asBefore" />
      </AskGroup>
      <p class="dim small">{{ say('first.radio') }}</p>
      <section v-if="data.worse.length > 0" aria-labelledby="worse">
        <h2 id="worse">
          {{ say('first.worse') }} <small>{{ say('first.worse.small') }}</small>
        </h2>
        <ul class="worse">
          <li v-for="one in data.worse" :key="one.what" :data-worse="one.what">
            {{ worseWords(say, one) }}
          </li>
        </ul>
        <p v-if="data.decided && decision" data-claim="decided">
          {{
            say('first.decided', {
              by: decision.by ?? '',
              when: when(decision.at),
              note: decision.note ?? '',
            })
          }}
        </p>
        <form v-else-if="may" class="row no-print" @submit.prevent="decide">
          <v-text-field v-model="reason" :label="say('first.decide.reason')" maxlength="2000" />
          <v-btn type="submit" variant="outlined" :disabled="reason.trim() === ''">{{
            say('first.decide')
          }}</v-btn>
        </form>
      </section>
      <MoreWork v-if="may && standingOf(data, 'write')?.is === 'done' && data.run !== null" />
    </template>
  </StageSheet>
</template>

<style scoped>
form > :first-child {
  flex: 1;
}
.worse {
  margin: 0 0 8px;
  padding-left: 18px;
  color: var(--brick);
}
.holds {
  color: var(--lichen);
}
.not {
  color: var(--brick);
  font-weight: 600;
}
</style>
