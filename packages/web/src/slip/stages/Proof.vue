<script lang="ts">
/** Proof: every claim of the route's packages held against the bytes that are here, live while they are read. */
</script>

<script setup lang="ts">
import type { Archive, Job } from '@plain-slate/api'
import { reaches } from '@plain-slate/core'
import { mib, refusalWords } from '@plain-slate/texts'
import { computed, ref, watch } from 'vue'
import Resource from '../../parts/Resource.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import PackageClaims from '../sheet/PackageClaims.vue'
import StageSheet from '../sheet/StageSheet.vue'
import { standingOf, useJob } from '../job.ts'

const say = useSay()
const { job, line, tell, may } = useJob()
const session = useSessionStore()
const shelf = useRead('shelf')
const keys = computed(() => job.data.value?.route?.keys ?? [])
const reason = ref('')
const unvouched = computed(() => {
  const data = job.data.value
  return data?.run === null ? data.unpublished : undefined
})
const isLead = computed(() => reaches(session.person?.role, 'lead'))
const overruled = computed(() =>
  unvouched.value?.overruled === true ? line('overrule.unpublished') : undefined,
)
async function overrule() {
  const note = reason.value.trim()
  const answer = (unvouched.value?.keys ?? []).join(', ')
  if (note === '' || answer === '') return
  await tell([{ topic: 'overrule.unpublished', answer, note }])
  reason.value = ''
}

function title(data: Job): string {
  if (data.route === null) return say('proof.title.none')
  const now = standingOf(data, 'proof')
  if (now?.is === 'open') {
    const titles = String(now.facts['titles'] ?? '')
    return say(now.says === 'proof.unpublished' ? 'proof.title.unpublished' : 'proof.title.open', {
      titles,
    })
  }
  return say('proof.title.done', { n: data.route.keys.length, claims: data.route.claims })
}
const reading = computed(() =>
  (shelf.data.value?.archives ?? []).filter(({ state }) => state === 'reading'),
)
const refusedIn = (archives: readonly Archive[]) =>
  archives.filter(({ state }) => state === 'refused')
/** Archives that were refused before this page was opened are history, told on the Shelf. */
const before = ref<ReadonlySet<string>>()
watch(
  shelf.data,
  (data) => {
    if (data !== undefined) before.value ??= new Set(refusedIn(data.archives).map(({ id }) => id))
  },
  { immediate: true },
)
const refused = computed(() =>
  refusedIn(shelf.data.value?.archives ?? []).filter(({ id }) => before.value?.has(id) === false),
)
const refusalOf = ({ refusal }: Archive) => (refusal === null ? '' : refusalWords(say, refusal))
const share = ({ done, bytes }: { done: number; bytes: number }) =>
  `${Math.round((done / Math.max(1, bytes)) * 100)}%`
</script>

<template>
  <StageSheet stage="proof" :title="title" :lede="() => say('proof.lede')">
    <section v-if="reading.length > 0" role="status" :aria-label="say('proof.live')">
      <h2>{{ say('proof.live') }}</h2>
      <div v-for="one in reading" :key="one.id" class="live">
        <span>{{ one.name }}</span>
        <span class="mono">{{
          say('run.piece', { got: mib(one.done), size: mib(one.bytes) })
        }}</span>
        <div class="bar"><div :style="{ width: share(one) }" /></div>
      </div>
    </section>
    <p v-for="one in refused" :key="one.id" class="amiss" role="status">
      {{ say('proof.refused', { name: one.name, why: refusalOf(one) }) }}
    </p>
    <Resource v-slot="{}" :read="shelf">
      <PackageClaims v-for="key in keys" :id="key" :key="key" />
    </Resource>
    <section v-if="unvouched && unvouched.keys.length > 0" data-claim="unpublished">
      <p>{{ say('proof.unpublished') }}</p>
      <p class="row no-print">
        <router-link v-for="key in unvouched.keys" :key="key" :to="`/shelf/${key}`">{{
          say('proof.published.go')
        }}</router-link>
      </p>
      <p v-if="overruled">
        {{ say('proof.overruled', { by: overruled.by ?? '', note: overruled.note ?? '' }) }}
      </p>
      <form v-else-if="may && isLead" class="row no-print" @submit.prevent="overrule">
        <v-text-field v-model="reason" :label="say('proof.overrule.reason')" maxlength="2000" />
        <v-btn type="submit" variant="outlined" :disabled="reason.trim() === ''">{{
          say('proof.overrule')
        }}</v-btn>
      </form>
    </section>
    <p class="dim">{{ say('proof.drop') }}</p>
  </StageSheet>
</template>

<style scoped>
form > :first-child {
  flex: 1;
}
.live {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  margin-bottom: 8px;
}
.bar {
  grid-column: 1 / -1;
  height: 8px;
  background: var(--raised);
}
.bar div {
  height: 100%;
  background: var(--sky);
}
</style>
