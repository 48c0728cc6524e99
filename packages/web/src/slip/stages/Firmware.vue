<script lang="ts">
/** Firmware: what the build on the device is against the wanted one, the routes, and why the rest is left out. */
</script>

<script setup lang="ts">
import type { Job, RouteShown } from '@plain-slate/api'
import { isTakeable, worstFate } from '@plain-slate/core'
import { farWords, findingWords } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useBrowserStore } from '../../base/browser.ts'
import EmptyNote from '../../parts/EmptyNote.vue'
import Resource from '../../parts/Resource.vue'
import Peg from '../../pictures/Peg.vue'
import Ruler from '../../pictures/Ruler.vue'
import { useSay } from '../../base/said.ts'
import type { Answer } from '../../server/call.ts'
import CarryOver from '../sheet/CarryOver.vue'
import BlockedRows from '../sheet/BlockedRows.vue'
import Departures from '../sheet/Departures.vue'
import Dues from '../sheet/Dues.vue'
import PermitForm from '../sheet/PermitForm.vue'
import RouteRows from '../sheet/RouteRows.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { useJob } from '../job.ts'
import { useRoutes } from '../sheet/routes.ts'

type Routes = Answer<'jobRoutes'>
const say = useSay()
const worstOf = ({ fates }: Pick<RouteShown, 'fates'>) => worstFate(fates.map(({ fate }) => fate))
const route = useRoute()
const browser = useBrowserStore()
const { job, may, tell, put } = useJob()
const { read, inHand, isOld, number } = useRoutes()

const packages = ({ first }: RouteShown) =>
  first.filter(({ kind }) => kind === 'package').length + 1
function title(data: Job): string {
  const routes = read.data.value?.routes ?? []
  const best = inHand.value
  if (data.family === null) return say('routes.title.unread')
  if (read.data.value === undefined) return say('routes.title.searching')
  if (best === undefined) return say('routes.title.none')
  const fate = say(`fate.${worstOf(best)}`)
  if (data.route !== null)
    return say('routes.title.away', { build: best.build, n: packages(best), fate })
  if (isOld.value) return say('routes.title.searching')
  if (best.misses.length > 0) {
    const back = data.intent === 'downgrade' && goesOn(best)
    return say(back ? 'routes.title.short.back' : 'routes.title.short', { build: best.build })
  }
  const keep = routes.filter((one) => worstOf(one) === 'kept' && one.misses.length === 0).length
  return say('routes.title.keep', { n: keep, build: best.build })
}
/** Of a wish to go back it goes the other way, or stays. */
const goesOn = ({ misses }: RouteShown) =>
  misses.includes('release') || misses.includes('patch-date')
/** Why nothing goes the way that is wished. */
function cannotWords({ cannot }: Routes): string {
  if (cannot === null) return ''
  const { title: aim, finding } = cannot
  if (aim === null) return say('routes.cannot.none')
  return finding === null
    ? say('routes.cannot.no-way', { title: aim })
    : say('routes.cannot', { title: aim, why: findingWords(browser.language, finding) })
}
const lede = () => {
  const data = read.data.value
  const intent = say(`intent.${job.data.value?.intent ?? 'update'}`)
  return data === undefined
    ? ''
    : say('routes.lede', { known: data.known, naming: data.naming, intent })
}
const pick = (answer: string) => tell([{ topic: 'route.package', answer }])
/** Until a route is picked, Enter takes the best one once it is rehearsed, unless it loses or misses something, or fails. */
const main = computed(() => {
  const best = inHand.value
  const data = job.data.value
  if (data === undefined || data.route !== null || best === undefined || !may.value) return
  if ((worstOf(best) !== 'kept' && data.keepData) || best.fails !== null) return
  if (best.misses.length > 0) return
  const label = say(best.rehearsed ? 'routes.pick' : 'routes.pick.soon', { title: best.title })
  const busy = put.isPending.value || !best.rehearsed || isOld.value
  return { label, act: () => void pick(best.route), busy }
})
/** Those that reach all that is wished; where none does, the nearest are all there is. */
const reaching = computed(() => {
  const routes = read.data.value?.routes ?? []
  const whole = routes.filter(({ misses }) => misses.length === 0)
  return whole.length > 0 ? whole : routes
})
const short = computed(() => {
  const shown = new Set(reaching.value)
  return (read.data.value?.routes ?? []).filter((one) => !shown.has(one))
})
const isShortPicked = computed(() => short.value.some((one) => one.route === inHand.value?.route))
const sides = ({ ruler }: RouteShown) => ({
  from: ruler?.parts.map(({ name, from, mark }) => ({ name, text: from, mark })) ?? [],
  to: ruler?.parts.map(({ name, to, mark }) => ({ name, text: to, mark })) ?? [],
})
const whole = (parts: readonly { text: string }[]) => parts.map(({ text }) => text).join(' ')
/** Why one is no route: a part that goes along, a plan that cannot be made, or its gravest finding. */
function whyLeft(one: Routes['left'][number]): string {
  if (one.kind === 'part') return say('routes.kind.part')
  if (one.kind === 'variant' && isTakeable(one.verdict)) return say('routes.kind.variant')
  return one.none ?? reason(one)
}
const reason = ({ reason: gravest }: Routes['left'][number]) =>
  gravest === null ? '' : findingWords(browser.language, gravest)
</script>

<template>
  <StageSheet stage="firmware" :title="title" :lede="lede" :main="main" :error="put.error.value">
    <Resource v-slot="{ data }" :read="read">
      <p v-if="data.cannot && !isOld" class="amiss cannot">{{ cannotWords(data) }}</p>
      <template v-if="inHand?.ruler">
        <h2>
          {{ say('routes.build') }}
          <small>{{ farWords(say, inHand.ruler) }}</small>
        </h2>
        <p class="builds">
          <Ruler :segments="sides(inHand).from" :label="whole(sides(inHand).from)" />
          <span aria-hidden="true">→</span>
          <Ruler :segments="sides(inHand).to" :label="whole(sides(inHand).to)" />
        </p>
      </template>
      <p class="no-print">
        <router-link v-if="route.query['if'] === undefined" :to="{ query: { if: '1' } }" replace>{{
          say('what-if.open')
        }}</router-link>
        <router-link v-else :to="{ query: {} }" replace>{{ say('what-if.close') }}</router-link>
      </p>
      <Departures />
      <template v-if="data.routes.length === 0">
        <BlockedRows v-if="data.blocked.length > 0" :blocked="data.blocked" />
        <EmptyNote v-else :what="say('routes.walled')" :todo="say('routes.none.do')" />
      </template>
      <template v-else>
        <h2>{{ say('routes.routes') }}</h2>
        <RouteRows
          :routes="reaching"
          :picked="data.picked"
          :number="number"
          :may="may"
          :old="isOld"
          @pick="pick"
        />
        <details v-if="short.length > 0" :open="isShortPicked">
          <summary>{{ say('routes.short', { n: short.length }) }}</summary>
          <RouteRows
            :routes="short"
            :picked="data.picked"
            :number="number"
            :may="may"
            :old="isOld"
            :label="say('routes.short', { n: short.length })"
            @pick="pick"
          />
        </details>
        <BlockedRows
          v-if="data.blocked.length > 0"
          :blocked="data.blocked"
          :title="say('routes.blocked.wish')"
        />
        <p v-if="data.open > 0" class="dim">{{ say('routes.open', { n: data.open }) }}</p>
        <p v-if="data.limit" class="dim">{{ say('routes.limit') }}</p>
      </template>
      <CarryOver :routes="data.routes" />
      <PermitForm v-if="job.data.value?.intent === 'service'" />
      <Dues v-if="job.data.value" :dues="job.data.value.dues" :only="['permit']" />
      <h2 id="left">
        {{ say('routes.left') }} <small>{{ say('routes.left.small') }}</small>
      </h2>
      <ul class="left" aria-labelledby="left">
        <li
          v-for="one in data.left"
          :key="one.package"
          :class="{ asked: route.query['why'] === one.package }"
        >
          <Peg :verdict="one.verdict" />
          <span class="mono">{{ one.title }}</span>
          <span>
            {{ whyLeft(one) }}
            <router-link :to="{ query: { why: one.package } }" replace>{{
              say('routes.why.this')
            }}</router-link>
          </span>
        </li>
      </ul>
      <p v-if="data.more > 0" class="dim">{{ say('routes.more', { n: data.more }) }}</p>
      <p v-if="data.foreign > 0" class="dim">{{ say('routes.foreign', { n: data.foreign }) }}</p>
    </Resource>
  </StageSheet>
</template>

<style scoped>
.builds {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 28px;
  align-items: flex-start;
  margin: 0 0 6px;
}
.left {
  list-style: none;
  margin: 0;
  padding: 0;
}
.left li {
  display: grid;
  grid-template-columns: 24px 150px 1fr;
  gap: 4px;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
  font-size: 14px;
}
.asked {
  background: var(--raised);
}
@media (max-width: 700px) {
  .left li {
    grid-template-columns: 24px 1fr;
  }
  .left li > :last-child {
    grid-column: 2;
  }
}
</style>
