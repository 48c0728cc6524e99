<script lang="ts">
/** A family as its file says it, in words made from its data: models, modes and ways, readings, layouts, rules, figures. */
</script>

<script setup lang="ts">
import type { Family } from '@plain-slate/core'
import { modeName } from '@plain-slate/core'
import { buildWords, partsWords, rulesWords, startWords, takesWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import Columns from '../parts/Columns.vue'
import Resource from '../parts/Resource.vue'
import ModeGraph from '../pictures/ModeGraph.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import FamilyDecided from './FamilyDecided.vue'
import FamilyFigures from './FamilyFigures.vue'
import FamilyLayouts from './FamilyLayouts.vue'
import FamilyReadings from './FamilyReadings.vue'
import FamilyRemedies from './FamilyRemedies.vue'
import FamilyTrial from './FamilyTrial.vue'

const say = useSay()
const route = useRoute()
const id = computed(() => String(route.params['id'] ?? ''))
const read = useRead('family', () => ({ params: { id: id.value } }))
/** Its profile as the server read it by its schema: the contract, which every page loads, does without that. */
const shown = {
  ...read,
  data: computed(() => {
    const data = read.data.value
    return data === undefined ? undefined : { ...data, family: data.family as unknown as Family }
  }),
}
const DIGITS = 12

const variants = ({ variants: rows }: Family) =>
  rows.map(({ region, carrier, name, models, uncertifiedIn }) => {
    const variant =
      models === undefined
        ? say('family.variant', { region, carrier, name })
        : say('family.variant.of', { region, carrier, name, models: models.join(', ') })
    return uncertifiedIn === undefined
      ? variant
      : say('family.variant.calls', { variant, regions: uncertifiedIn.join(', ') })
  })
type Mode = Family['modes'][number]
/** What else is to be known of a mode: what it is taken for, whether it charges. */
const besides = (family: Family, { confusedWith, charges }: Mode) => [
  say(charges ? 'family.charges' : 'family.charges.not'),
  ...confusedWith.map(({ mode, tell }) =>
    say('family.alike', { mode: modeName(family, mode), tell }),
  ),
]
const waysFrom = (family: Family, mode: string) =>
  family.ways
    .filter(({ from, to }) => (from === 'any' ? to !== mode : from.includes(mode)))
    .map(({ to, say: words, seconds }) =>
      say('family.way', { to: modeName(family, to), say: words, seconds }),
    )
type Menu = NonNullable<Mode['menu']>
/** A menu's lines under each loader, the newest first. */
const menusOf = ({ lines, orders }: Menu) => [
  { title: say('family.menu.newer'), lines },
  ...orders.map((order) => ({
    title: say('family.menu.older', { n: order.upToLoader }),
    lines: order.lines.flatMap((one) => lines.find((line) => line.id === one) ?? []),
  })),
]
const drains = ({ drainPerMinute: { writing, 'first-start': start, idle } }: Family) =>
  say('family.drain', { writing, start, idle })
</script>

<template>
  <Resource v-slot="{ data: { family, digest, own, least, decided, trial } }" :read="shown">
    <p class="no-print">
      <router-link to="/house/families">{{ say('families.link') }}</router-link>
    </p>
    <h1>
      {{
        say('family.title', {
          maker: family.maker,
          models: family.models.length,
          modes: family.modes.length,
        })
      }}
    </h1>
    <p class="lede">
      {{
        say('family.lede', {
          id: family.id,
          version: family.version,
          digest: digest.slice(0, DIGITS),
        })
      }}
    </p>

    <FamilyDecided :decided="decided" />
    <h2 id="models">
      {{ say('family.models') }} <small>{{ say('family.models.small') }}</small>
    </h2>
    <Columns
      by="models"
      :columns="[
        say('family.model'),
        say('family.name'),
        say('family.boards'),
        say('family.chipset'),
        say('family.storages'),
      ]"
    >
      <tr v-for="one in family.models" :key="one.code">
        <th scope="row" class="mono">{{ one.code }}</th>
        <td>{{ one.name }}</td>
        <td>{{ one.boards.join(', ') }}</td>
        <td>{{ one.chipset }}</td>
        <td>{{ one.storages.join(', ') }}</td>
      </tr>
    </Columns>
    <h2>
      {{ say('family.variants') }} <small>{{ say('family.variants.small') }}</small>
    </h2>
    <ul>
      <li v-for="one in variants(family)" :key="one">{{ one }}</li>
    </ul>
    <h2>{{ say('family.build') }}</h2>
    <p v-for="one in buildWords(say, family)" :key="one">{{ one }}</p>

    <h2 id="modes">
      {{ say('family.modes') }} <small>{{ say('family.modes.small') }}</small>
    </h2>
    <ModeGraph :family="family" :label="say('family.graph', { maker: family.maker })" />
    <Columns
      by="modes"
      :scrolls="say('family.modes')"
      :columns="[say('family.mode'), say('family.looks'), say('family.takes'), say('family.ways')]"
    >
      <tr v-for="one in family.modes" :key="one.id" :data-mode="one.id">
        <th scope="row">{{ one.name }}</th>
        <td>
          {{ one.looks }}
          <span v-for="more in besides(family, one)" :key="more" class="more dim small">{{
            more
          }}</span>
        </td>
        <td>{{ takesWords(say, one) }}</td>
        <td>
          <span v-for="way in waysFrom(family, one.id)" :key="way" class="more">{{ way }}</span>
        </td>
      </tr>
    </Columns>
    <template v-for="one in family.modes" :key="one.id">
      <template v-if="one.menu">
        <h2>{{ say('family.menu', { mode: one.name }) }}</h2>
        <div class="menus">
          <div v-for="menu in menusOf(one.menu)" :key="menu.title">
            <b>{{ menu.title }}</b>
            <ol>
              <li v-for="line in menu.lines" :key="line.id" :class="{ danger: line.danger }">
                {{ line.name }}
              </li>
            </ol>
          </div>
        </div>
      </template>
    </template>

    <FamilyReadings :family="family" />
    <FamilyLayouts :family="family" />
    <p v-for="one in partsWords(say, family)" :key="one">{{ one }}</p>

    <h2>
      {{ say('family.start') }} <small>{{ say('family.start.small') }}</small>
    </h2>
    <ol data-claim="family.start">
      <li v-for="(rule, index) in family.start" :key="index">
        {{ startWords(say, family, rule) }}
      </li>
      <li>{{ say('family.start.else') }}</li>
    </ol>
    <h2>{{ say('family.rules') }}</h2>
    <ul data-claim="family.rules">
      <li v-for="one in rulesWords(say, family)" :key="one">{{ one }}</li>
    </ul>
    <template v-if="family.knownFaults.length > 0">
      <h2>{{ say('family.faults') }}</h2>
      <p v-for="fault in family.knownFaults" :key="fault.says">
        {{ say('family.fault', { ...fault, boards: fault.boards.join(', ') }) }}
      </p>
    </template>
    <FamilyRemedies :family="family" />
    <FamilyFigures :family="family" :own="own" :least="least" />
    <p>
      {{ drains(family) }}
      <template v-if="family.agedDrains !== undefined">{{
        say('family.drain.aged', { times: family.agedDrains })
      }}</template>
    </p>
    <FamilyTrial :family="family" :trial="trial" />
  </Resource>
</template>

<style scoped>
:deep(tbody th) {
  vertical-align: top;
}
.more {
  display: block;
}
p {
  margin: 0 0 6px;
  max-width: 86ch;
}
ol,
ul {
  padding-left: 22px;
  margin: 0 0 8px;
  max-width: 86ch;
}
.menus {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 40px;
}
.danger {
  color: var(--brick);
}
</style>
