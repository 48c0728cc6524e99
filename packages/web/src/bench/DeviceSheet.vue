<script lang="ts">
/** The device at a port: what it said of itself, and every package of the shelf held against it. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import type { Candidate, Port, Seen } from '@plain-slate/api'
import { INTENTS, isTakeable } from '@plain-slate/core'
import { chargeWords, findingWords } from '@plain-slate/texts'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useBrowserStore } from '../base/browser.ts'
import EmptyNote from '../parts/EmptyNote.vue'
import Peg from '../pictures/Peg.vue'
import Resource from '../parts/Resource.vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange, useRead } from '../server/query.ts'
import { usePort } from './bench-query.ts'

const props = defineProps<{ seen: Seen; last: Port['look'] }>()
const say = useSay()
const browser = useBrowserStore()
const client = useQueryClient()
const { port, intent, keepData, address, change } = usePort()
const judged = useRead('judge', () => ({
  body: { port: port.value, intent: intent.value, keepData: keepData.value },
}))
const read = useChange('portRead')
const about = computed(() => {
  const { model, mode, build } = props.seen
  const known = { model, port: port.value, mode: mode.name }
  return build === null ? say('at.title.nobuild', known) : say('at.title', { ...known, build })
})
const intents = computed(() => INTENTS.map((value) => ({ value, title: say(`intent.${value}`) })))
const why = ({ findings: [gravest] }: Candidate) =>
  gravest === undefined ? '' : findingWords(browser.language, gravest)

const looking = computed(() => read.isPending.value || props.last?.state === 'looking')
const trouble = computed(() => {
  if (read.error.value !== null) return troubleOf(read.error.value)
  return looking.value ? undefined : (props.last?.trouble ?? undefined)
})
async function look() {
  await read.mutateAsync({ params: { port: port.value } }).catch(() => undefined)
  renew(client, 'bench')
}
</script>

<template>
  <h1>{{ about }}</h1>
  <p class="lede">
    {{
      say('at.lede', {
        board: seen.board ?? say('seen.not-shown'),
        loader: seen.loaderVersion ?? say('seen.not-shown'),
        battery: chargeWords(say, seen.battery),
        serial: seen.serial,
      })
    }}
  </p>
  <p class="row">
    <v-btn :disabled="looking" @click="look">
      {{ looking ? say('at.reading') : say('at.read') }}
    </v-btn>
    <span v-if="last?.found?.serial === seen.serial" role="status">
      {{
        last.found.table
          ? say('at.read.done', { digests: last.found.digests })
          : say('at.read.facts')
      }}
    </span>
    <span v-else class="dim">{{ say('at.read.hint') }}</span>
  </p>
  <Trouble v-if="trouble" :trouble="trouble" quiet />
  <div class="wanted">
    <v-select
      :model-value="intent"
      :items="intents"
      :label="say('at.intent')"
      @update:model-value="(value: string) => change({ intent: value })"
    />
    <label>
      <input
        type="checkbox"
        :checked="keepData"
        @change="change({ keep: ($event.target as HTMLInputElement).checked ? '' : 'no' })"
      />
      {{ say('at.keep') }}
    </label>
  </div>
  <h2 id="fit">
    {{ say('at.fit') }} <small>{{ say('at.fit.small') }}</small>
  </h2>
  <Resource :read="judged" :empty="(data) => data.candidates.length === 0">
    <template #empty>
      <EmptyNote :what="say('at.fit.none')" :todo="say('at.fit.none.do')" />
    </template>
    <template #default="{ data }">
      <Columns
        by="fit"
        :columns="[say('at.column.verdict'), say('at.column.package'), say('at.column.why')]"
      >
        <tr v-for="one in data.candidates" :key="one.package">
          <td class="nowrap"><Peg :verdict="one.verdict" /> {{ say(`verdict.${one.verdict}`) }}</td>
          <td>
            <router-link v-if="isTakeable(one.verdict)" :to="address({ package: one.package })">{{
              say('at.plan', { build: one.build })
            }}</router-link>
            <span v-else class="mono">{{ one.build }}</span>
            <span v-if="one.title !== one.build" class="dim small name">{{ one.title }}</span>
          </td>
          <td>{{ why(one) }}</td>
        </tr>
      </Columns>
    </template>
  </Resource>
</template>

<style scoped>
.wanted {
  display: grid;
  grid-template-columns: 200px auto;
  gap: 16px;
  align-items: center;
  justify-content: start;
  margin-top: 12px;
}
input {
  accent-color: var(--sky);
}
.nowrap {
  white-space: nowrap;
}
.name {
  display: block;
}
</style>
