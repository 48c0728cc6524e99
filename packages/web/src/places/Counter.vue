<script lang="ts">
/** The counter as far as it is there: how many slips are open, and which are due next. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { SlipRow } from '@plain-slate/api'
import CopyLine from './CopyLine.vue'
import FirstSteps from './FirstSteps.vue'
import CareList from './CareList.vue'
import HandsNext from './HandsNext.vue'
import Resource from '../parts/Resource.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { daysBetween } from '../time/words.ts'

const say = useSay()
const slips = useRead('slips', { query: { state: 'open', sort: 'due' } })
const { now, zone, when } = useShop()

/** Slips come by the page, the first due first: where the whole page is due today there may be more. */
function dueToday({ rows, found }: { readonly rows: readonly SlipRow[]; readonly found: number }) {
  const due = rows.filter(
    (one) => one.due !== null && daysBetween(now.value, Date.parse(one.due), zone.value) <= 0,
  ).length
  return due === rows.length && found > due
    ? say('counter.due.at-least', { n: due })
    : say('counter.due.n', { n: due })
}
const isLate = (due: string | null) => due !== null && Date.parse(due) < now.value
</script>

<template>
  <Resource :read="slips" :empty="(data) => data.rows.length === 0">
    <template #empty>
      <h1>{{ say('counter.none.title') }}</h1>
      <CopyLine />
      <FirstSteps />
      <CareList />
    </template>
    <template #default="{ data }">
      <h1>
        {{ say('counter.title', { open: data.found, due: dueToday(data) }) }}
      </h1>
      <p class="lede">{{ say('counter.lede') }}</p>
      <CopyLine />
      <HandsNext />
      <CareList />
      <h2 id="due-next">
        {{ say('counter.due') }} <small>{{ say('counter.due.small') }}</small>
      </h2>
      <Columns
        by="due-next"
        :columns="[
          say('slips.column.number'),
          say('slips.column.device'),
          say('slips.column.intent'),
          say('slips.column.stage'),
          say('slips.column.due'),
        ]"
      >
        <tr v-for="slip in data.rows" :key="slip.number">
          <td>
            <router-link class="mono" :to="`/slips/${slip.number}`">{{ slip.number }}</router-link>
          </td>
          <td>
            <b>{{ slip.device }}</b> <span class="dim">{{ slip.customer }}</span>
          </td>
          <td>
            {{ say(`intent.${slip.intent}`)
            }}<span class="dim">{{ slip.promise === '' ? '' : `, ${slip.promise}` }}</span>
          </td>
          <td>{{ say(`stage.${slip.stage}`) }}</td>
          <td :class="['nowrap', { late: isLate(slip.due) }]">
            {{ slip.due === null ? '' : when(slip.due) }}
            <span v-if="isLate(slip.due)">{{ say('counter.late') }}</span>
          </td>
        </tr>
      </Columns>
      <p v-if="data.found > data.rows.length">
        <router-link :to="{ path: '/slips', query: { state: 'open', sort: 'due', page: '2' } }">{{
          say('counter.more', { n: data.found - data.rows.length })
        }}</router-link>
      </p>
    </template>
  </Resource>
</template>

<style scoped>
.nowrap {
  white-space: nowrap;
}
.late {
  color: var(--brick);
  font-weight: 600;
}
</style>
