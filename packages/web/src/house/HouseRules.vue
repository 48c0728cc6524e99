<script lang="ts">
/**
 * The house rules: where good technicians disagree, what each school argues, and what this house decided. A lead
 * decides anew, with a reason; what was decided before stands below.
 */
</script>

<script setup lang="ts">
import type { HouseShown } from '@plain-slate/api'
import { HAND_WORK, SCHOOLS, SCHOOL_QUESTIONS, leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import Columns from '../parts/Columns.vue'
import Resource from '../parts/Resource.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange, useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { draftOf, rulesOf, schoolCode } from './draft.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const { when } = useShop()
const read = useRead('house')
const put = useChange('houseChange')
const may = computed(() => reaches(session.person?.role, leastOf('house.change')))
const draft = reactive(draftOf())
const reason = ref('')
/** What stood when the typing began: what somebody else decides meanwhile is told, and nothing typed is lost. */
const seen = ref<Pick<HouseShown, 'version' | 'rules'>>()
const isChanged = computed(
  () =>
    seen.value !== undefined && JSON.stringify(draftOf(seen.value.rules)) !== JSON.stringify(draft),
)
function takeUp(standing: HouseShown) {
  seen.value = standing
  Object.assign(draft, draftOf(standing.rules))
}
watch(
  read.data,
  (standing) => {
    if (standing !== undefined && !isChanged.value) takeUp(standing)
  },
  { immediate: true },
)
const rules = computed(() => rulesOf(draft))
async function decide() {
  if (rules.value === undefined || seen.value === undefined) return
  const body = { version: seen.value.version, rules: rules.value, reason: reason.value.trim() }
  const done = await put.mutateAsync({ body }).catch(() => undefined)
  if (done !== undefined) {
    takeUp(done)
    reason.value = ''
  }
  renew(client, 'shop')
}
const changed = (names: readonly string[]) =>
  names.map((name) => say(`house.rule.${name as 'writes'}`)).join(', ')
</script>

<template>
  <section aria-labelledby="house-rules">
    <h2 id="house-rules">
      {{ say('house.rules') }} <small>{{ say('house.rules.small') }}</small>
    </h2>
    <Resource v-slot="{ data }" :read="read">
      <form @submit.prevent="decide">
        <fieldset
          v-for="question in SCHOOL_QUESTIONS"
          :key="question"
          class="rule"
          :disabled="!may"
        >
          <legend>{{ say(`house.rule.${question}`) }}</legend>
          <label v-for="one in SCHOOLS[question]" :key="one" class="school">
            <input v-model="draft.schools[question]" type="radio" :name="question" :value="one" />
            <span>
              <b>{{ say(schoolCode(question, one)) }}</b>
              <span class="dim small">{{ say(`${schoolCode(question, one)}.why`) }}</span>
            </span>
          </label>
        </fieldset>
        <fieldset class="rule" :disabled="!may">
          <legend>{{ say('house.battery') }}</legend>
          <label class="school">
            <input v-model="draft.fixed" type="radio" name="fixed" :value="false" />
            <span>
              <b>{{ say('house.battery.plan') }}</b>
              <span class="dim small">{{ say('house.battery.plan.why') }}</span>
            </span>
          </label>
          <label class="school">
            <input v-model="draft.fixed" type="radio" name="fixed" :value="true" />
            <span>
              <b>{{ say('house.battery.floor') }}</b>
              <span class="dim small">{{ say('house.battery.floor.why') }}</span>
            </span>
          </label>
          <div class="figures">
            <label>
              {{ say('house.rule.batteryMargin') }}
              <input v-model="draft.margin" inputmode="numeric" maxlength="2" />
            </label>
            <label v-if="draft.fixed">
              {{ say('house.rule.batteryFloor') }}
              <input v-model="draft.floor" inputmode="numeric" maxlength="3" />
            </label>
          </div>
        </fieldset>
        <fieldset class="rule" :disabled="!may">
          <legend>{{ say('house.rule.lawfulRegions') }}</legend>
          <div class="figures">
            <label>
              {{ say('house.regions') }}
              <input v-model="draft.regions" maxlength="200" />
            </label>
            <span class="dim small">{{ say('house.regions.why') }}</span>
          </div>
        </fieldset>
        <fieldset class="rule" :disabled="!may">
          <legend>{{ say('house.rule.handSeconds') }}</legend>
          <div class="figures">
            <label v-for="work in HAND_WORK" :key="work">
              {{ say(`house.hand.${work}`) }}
              <input v-model="draft.hands[work]" inputmode="numeric" maxlength="4" />
            </label>
          </div>
        </fieldset>
        <div v-if="may" class="decide no-print">
          <v-text-field v-model="reason" :label="say('house.rules.reason')" maxlength="300" />
          <v-btn
            type="submit"
            :disabled="!isChanged || !rules || reason.trim() === '' || put.isPending.value"
          >
            {{ say('house.rules.decide') }}
          </v-btn>
          <p v-if="isChanged && !rules" class="amiss small">{{ say('house.rules.odd') }}</p>
        </div>
        <p v-else class="dim small">{{ say('house.rules.lead') }}</p>
        <p v-if="seen && seen.version !== data.version" class="small no-print">
          {{ say('house.rules.moved') }}
          <button type="button" class="act" @click="takeUp(data)">
            {{ say('house.rules.see') }}
          </button>
        </p>
        <Trouble v-if="put.error.value" :trouble="troubleOf(put.error.value)" quiet />
      </form>
      <Columns
        v-if="data.history.length > 0"
        :label="say('house.rules.history')"
        :columns="[
          say('house.rules.when'),
          say('house.rules.by'),
          say('house.rules.what'),
          say('house.rules.reason'),
        ]"
      >
        <tr v-for="one in data.history" :key="one.version">
          <td class="mono">{{ when(one.at) }}</td>
          <td>{{ one.by ?? '' }}</td>
          <td>{{ changed(one.changed) }}</td>
          <td>{{ one.reason }}</td>
        </tr>
      </Columns>
      <p v-else class="dim small">{{ say('house.rules.usual') }}</p>
    </Resource>
  </section>
</template>

<style scoped>
.rule {
  border: 0;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
  margin: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 24px;
}
legend {
  float: left;
  width: 100%;
  grid-column: 1 / -1;
  color: var(--ink-2);
  padding: 0;
}
.school {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.school .small {
  display: block;
}
.figures {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
  align-items: baseline;
}
.figures input {
  width: 72px;
  border: 1px solid var(--ink-2);
  border-radius: 4px;
  padding: 3px 6px;
  background: var(--raised);
  color: var(--ink);
}
.figures input[maxlength='200'] {
  width: 220px;
}
input {
  accent-color: var(--sky);
}
.decide {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  padding: 8px 0;
}
@media (max-width: 700px) {
  .rule,
  .decide {
    grid-template-columns: 1fr;
  }
}
</style>
