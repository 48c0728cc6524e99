<script lang="ts">
/**
 * The plan in hand as it would be, had the house decided otherwise: what each answer costs and saves, one of them side by
 * side with the plan step by step, and taken for this slip with a reason.
 */
</script>

<script setup lang="ts">
import type { OtherwiseShown, PlanShown } from '@plain-slate/api'
import { CUT_CLASSES, departTopic, worstFate } from '@plain-slate/core'
import { failsWords, passedWords, rangeWords, stepWords } from '@plain-slate/texts'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useSay } from '../../base/said.ts'
import { schoolCode } from '../../house/draft.ts'
import Columns from '../../parts/Columns.vue'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'
import { sideBySide } from './side-by-side.ts'

const { plan } = defineProps<{ plan: PlanShown }>()
const say = useSay()
const route = useRoute()
const { params, may, tell, put } = useJob()
const read = useRead('jobOtherwise', () => ({ params: params.value }), { keep: true })
const others = computed(() => read.data.value?.others ?? [])
const nameOf = ({ question, answer }: OtherwiseShown) => `${question} ${answer}`
const chosen = computed(() => others.value.find((one) => nameOf(one) === route.query['against']))
const school = ({ question, answer }: OtherwiseShown) =>
  say('otherwise.school', {
    question: say(`house.rule.${question}`),
    answer: say(schoolCode(question, answer)),
  })

type Figures = Pick<
  OtherwiseShown,
  'steps' | 'time' | 'hands' | 'needs' | 'restarts' | 'fates' | 'worst'
>
const now = computed((): Figures => {
  const leaves = CUT_CLASSES.findLast((one) => (plan.atRisk[one] ?? 0) > 0) ?? 'unaffected'
  return { ...plan, worst: { leaves, seconds: plan.atRisk[leaves] ?? 0 } }
})
const dataOf = ({ fates }: Figures) => say(`fate.${worstFate(fates.map(({ fate }) => fate))}`)
const worstOf = ({ worst }: Figures) =>
  worst === null
    ? say('routes.rehearsing')
    : `${passedWords(say, Math.ceil(worst.seconds))}, ${say(`strip.${worst.leaves}`)}`
const cells = (one: Figures) => [
  String(one.steps.length),
  rangeWords(say, one.time),
  rangeWords(say, one.hands),
  say('otherwise.charge', { needs: one.needs }),
  String(one.restarts),
  dataOf(one),
  worstOf(one),
]
/** A column that says something else than the plan as it stands. */
const isOther = (one: OtherwiseShown, index: number) =>
  cells(one)[index] !== cells(now.value)[index]

const words = (steps: PlanShown['steps']) => steps.map((step) => stepWords(say, step))
const rows = computed(() =>
  chosen.value === undefined ? [] : sideBySide(words(plan.steps), words(chosen.value.steps)),
)
const reason = ref('')
const ready = computed(() => may.value && reason.value.trim() !== '' && !put.isPending.value)
async function take() {
  const one = chosen.value
  if (one === undefined || !ready.value) return
  const note = reason.value.trim()
  await tell([
    { topic: departTopic(one.question), answer: one.answer, note },
    { topic: 'route.package', answer: one.route },
  ])
  if (put.error.value === null) reason.value = ''
}
</script>

<template>
  <template v-if="others.length > 0">
    <h2 id="otherwise">
      {{ say('otherwise.title') }} <small>{{ say('otherwise.small') }}</small>
    </h2>
    <Columns
      class="figures"
      by="otherwise"
      :scrolls="say('otherwise.title')"
      :columns="[
        say('otherwise.decided'),
        say('otherwise.steps'),
        say('routes.work'),
        say('otherwise.hands'),
        say('otherwise.needs'),
        say('otherwise.restarts'),
        say('routes.data'),
        say('routes.worst'),
      ]"
    >
      <tr>
        <th scope="row">{{ say('otherwise.now') }}</th>
        <td v-for="(cell, index) in cells(now)" :key="index" class="mono small">{{ cell }}</td>
      </tr>
      <tr
        v-for="one in others"
        :key="nameOf(one)"
        :data-otherwise="nameOf(one)"
        :class="{ chosen: one === chosen }"
      >
        <th scope="row">
          <span class="dim small block">{{ say(`house.rule.${one.question}`) }}</span>
          {{ say(schoolCode(one.question, one.answer)) }}
          <span v-if="one.fails" class="amiss small block">{{ failsWords(say, one.fails) }}</span>
          <router-link
            v-if="one !== chosen"
            class="small block no-print"
            :to="{ query: { against: nameOf(one) } }"
            replace
            >{{ say('otherwise.beside')
            }}<span class="visually-hidden"> {{ school(one) }}</span></router-link
          >
        </th>
        <td
          v-for="(cell, index) in cells(one)"
          :key="index"
          class="mono small"
          :class="{ other: isOther(one, index) }"
        >
          {{ cell }}
        </td>
      </tr>
    </Columns>
    <template v-if="chosen">
      <h3 id="beside">{{ say('otherwise.against', { school: school(chosen) }) }}</h3>
      <div class="pair" aria-labelledby="beside" role="group">
        <b>{{ say('otherwise.now') }}</b>
        <b>{{ school(chosen) }}</b>
        <template v-for="(row, index) in rows" :key="index">
          <p v-if="row.kind === 'alike'" class="alike dim small">
            {{ say('otherwise.alike', { n: row.steps.length, first: row.steps[0] ?? '' }) }}
          </p>
          <template v-else>
            <ul>
              <li v-for="(step, n) in row.now" :key="n" data-side="now">{{ step }}</li>
              <li v-if="row.now.length === 0" class="dim">{{ say('otherwise.nothing') }}</li>
            </ul>
            <ul>
              <li v-for="(step, n) in row.then" :key="n" data-side="then">{{ step }}</li>
              <li v-if="row.then.length === 0" class="dim">{{ say('otherwise.nothing') }}</li>
            </ul>
          </template>
        </template>
      </div>
      <form v-if="may" class="no-print take" @submit.prevent="take">
        <v-text-field v-model="reason" :label="say('otherwise.reason')" maxlength="300" />
        <button type="submit" class="act" :disabled="!ready">{{ say('otherwise.take') }}</button>
        <router-link :to="{ query: {} }" replace>{{ say('otherwise.close') }}</router-link>
      </form>
    </template>
  </template>
</template>

<style scoped>
.figures {
  margin-bottom: 12px;
}
th {
  text-align: left;
  font-weight: normal;
  width: 200px;
  min-width: 160px;
  max-width: 200px;
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--rule);
}
td {
  white-space: nowrap;
  vertical-align: top;
}
td:last-child {
  white-space: normal;
}
.block {
  display: block;
}
.chosen {
  background: var(--raised);
}
.other {
  color: var(--ochre);
  font-weight: 600;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 20px;
}
.pair ul {
  margin: 0;
  padding-left: 18px;
}
.alike {
  grid-column: 1 / 3;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  margin: 2px 0;
  padding: 2px 0;
}
.take {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: center;
  margin-top: 8px;
}
@media (max-width: 700px) {
  .pair,
  .take {
    grid-template-columns: 1fr;
  }
  .alike {
    grid-column: 1;
  }
}
</style>
