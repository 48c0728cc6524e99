<script lang="ts">
/** A family's figures beside what this bench measured: how long things take, and when one of them is stuck. */
</script>

<script setup lang="ts">
import type { FamilyShown } from '@plain-slate/api'
import type { Family } from '@plain-slate/core'
import { PACE_KEYS } from '@plain-slate/core'
import { computed } from 'vue'
import Columns from '../parts/Columns.vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{
  family: Family
  own: FamilyShown['own']
  least: number
}>()
const say = useSay()
const rounded = (one: number) => Math.round(one * 10) / 10

const figures = computed(() =>
  PACE_KEYS.flatMap((key) => {
    const rule = props.family.pace[key]
    if (rule === undefined) return []
    const isRate = 'mibPerSecond' in rule
    const [low, high] = isRate ? rule.mibPerSecond : rule.seconds
    const words = (from: number, to: number) =>
      say(isRate ? 'family.figure.rate' : 'family.figure.seconds', {
        low: rounded(from),
        high: rounded(to),
      })
    const own = props.own[key]
    const silent = props.family.silentSeconds[key]
    return [
      {
        key,
        family: words(low, high),
        own:
          own === undefined
            ? say('family.figure.own.none')
            : say(own.n < props.least ? 'family.figure.own.few' : 'family.figure.own.n', {
                figure: words(own.low, own.high),
                n: own.n,
              }),
        silent: silent === undefined ? '' : `${silent} s`,
      },
    ]
  }),
)
</script>

<template>
  <h2 id="figures">
    {{ say('family.figures') }} <small>{{ say('family.figures.small') }}</small>
  </h2>
  <Columns
    by="figures"
    :columns="[
      say('family.figure'),
      say('family.figure.family'),
      say('family.figure.own'),
      say('family.figure.silent'),
    ]"
  >
    <tr v-for="one in figures" :key="one.key" :data-pace="one.key">
      <th scope="row">{{ say(`pace.${one.key}`) }}</th>
      <td>{{ one.family }}</td>
      <td>{{ one.own }}</td>
      <td>{{ one.silent }}</td>
    </tr>
  </Columns>
</template>
