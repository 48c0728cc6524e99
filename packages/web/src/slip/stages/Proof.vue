<script lang="ts">
/** Proof: every claim of the route's packages held against the bytes that are here, live while they are read. */
</script>

<script setup lang="ts">
import type { Archive, Job } from '@plain-slate/api'
import { mib } from '@plain-slate/texts'
import { computed, ref, watch } from 'vue'
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../said.ts'
import { useRead } from '../../server/query.ts'
import PackageClaims from '../PackageClaims.vue'
import StageSheet from '../StageSheet.vue'
import { standingOf, useJob } from '../job.ts'
import { useRoutes } from '../routes.ts'

const say = useSay()
const { job } = useJob()
const { inHand } = useRoutes()
const shelf = useRead('shelf')
/** Titles of the route: what goes on first, then the aim; taken ones once a run has begun. */
const titles = computed(() => [
  ...(inHand.value?.first ?? []),
  ...(job.data.value?.route ? [job.data.value.route.title] : []),
])
const packages = computed(() =>
  titles.value.flatMap(
    (title) => shelf.data.value?.packages.find((one) => one.title === title) ?? [],
  ),
)
const count = (of: 'held' | 'made') => packages.value.reduce((sum, one) => sum + one[of], 0)

function title(data: Job): string {
  if (data.route === null) return say('proof.title.none')
  const now = standingOf(data, 'proof')
  if (now?.is === 'open')
    return say('proof.title.open', { titles: String(now.facts['titles'] ?? '') })
  return say('proof.title.done', { n: packages.value.length, claims: count('held') })
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
      {{
        say('proof.refused', {
          name: one.name,
          why: say(`rule.${(one.refusal?.rule ?? '') as 'truncated'}`),
          entry: one.refusal?.entry ?? '',
          offset: one.refusal?.offset ?? 0,
        })
      }}
    </p>
    <Resource v-slot="{}" :read="shelf">
      <PackageClaims v-for="one in packages" :id="one.id" :key="one.id" />
    </Resource>
    <p class="dim">{{ say('proof.drop') }}</p>
  </StageSheet>
</template>

<style scoped>
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
