<script lang="ts">
/** Compare: what is on the device beside what is to go on, image by image; the layout; the wall. */
</script>

<script setup lang="ts">
import Columns from '../../parts/Columns.vue'
import type { Job, PlanPage } from '@plain-slate/api'
import { mib, reasonWords, sayAny } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useBrowserStore } from '../../base/browser.ts'
import Resource from '../../parts/Resource.vue'
import Wall from '../../pictures/Wall.vue'
import { useSay } from '../../base/said.ts'
import StageSheet from '../sheet/StageSheet.vue'
import { standingOf, useJob } from '../job.ts'
import { usePlanPage, wallOf } from '../sheet/plan-page.ts'

const say = useSay()
const router = useRouter()
const browser = useBrowserStore()
const { job, number, may, line, tell, put } = useJob()
const { read, plan } = usePlanPage()
const open = computed(() => standingOf(job.data.value, 'compare')?.is === 'open')
const accepted = computed(() => line('compare.unread'))

function title(data: Job): string {
  const now = standingOf(data, 'compare')
  if (now === undefined || plan.value === undefined || now.says === 'compare.none')
    return say('compare.title.none')
  if (now.is === 'open') return say('compare.title.unread', { of: Number(now.facts['of']) })
  const { n, of } = now.facts
  return say('compare.title', { n: Number(n), of: Number(of), left: Number(of) - Number(n) })
}
const main = computed(() =>
  open.value && plan.value !== undefined && may.value
    ? {
        label: say('compare.read'),
        act: () => void router.push(`/slips/${number.value}/readings`),
        busy: put.isPending.value,
      }
    : undefined,
)
const layout = (page: PlanPage) =>
  page.layout === 'differs'
    ? say('compare.layout.differs', {
        parts: page.differences.map(({ partition, how }) => `${partition} ${how}`).join(', '),
      })
    : say(`compare.layout.${page.layout}`)
const oddWords = ({ kind, names, what }: PlanPage['odd'][number]) =>
  sayAny(browser.language, `layout.odd.${kind}`, { names: [...new Set(names)].join(', '), what })
const rows = (page: PlanPage) =>
  page.compared.length > 0
    ? page.compared
    : (page.taken?.shown.writes ?? []).map((one) => ({
        ...one,
        package: page.taken?.shown.title ?? '',
        image: '',
        device: null,
        facts: Object.fromEntries(
          Object.entries(one.facts).map(([name, value]) => [name, String(value)]),
        ),
      }))
</script>

<template>
  <StageSheet
    stage="compare"
    :title="title"
    :lede="() => say('compare.lede')"
    :main="main"
    :error="put.error.value"
  >
    <Resource v-slot="{ data: page }" :read="read">
      <template v-if="plan">
        <h2>
          {{ say('plan.wall') }} <small>{{ say('plan.wall.small') }}</small>
        </h2>
        <Wall :partitions="plan.wall.partitions" :courses="wallOf(say, plan)" legend />
      </template>
      <h2 id="images">
        {{ say('compare.images') }} <small>{{ say('compare.images.small') }}</small>
      </h2>
      <Columns
        by="images"
        :scrolls="say('compare.images')"
        :columns="[
          say('compare.part'),
          say('compare.package'),
          say('compare.size'),
          say('compare.image'),
          say('compare.device'),
          say('compare.act'),
          say('compare.why'),
        ]"
      >
        <tr
          v-for="one in rows(page)"
          :key="`${one.package} ${one.partition}`"
          :data-partition="one.partition"
        >
          <td class="mono">{{ one.partition }}</td>
          <td>{{ one.package }}</td>
          <td class="mono">{{ say('run.mib', { n: mib(one.bytes) }) }}</td>
          <td class="mono">{{ one.image }}</td>
          <td class="mono" :class="{ dim: one.device === null }">
            {{ one.device ?? say('compare.unread') }}
          </td>
          <td>
            <b v-if="one.write">{{ say('write.written') }}</b>
            <span v-else class="dim">{{ say('write.left') }}</span>
          </td>
          <td>{{ reasonWords(say, one) }}</td>
        </tr>
      </Columns>
      <h2>{{ say('compare.layout') }}</h2>
      <p>{{ layout(page) }}</p>
      <template v-if="page.odd.length > 0">
        <h3 id="odd">{{ say('compare.odd') }}</h3>
        <ul aria-labelledby="odd" class="odd">
          <li v-for="(one, at) in page.odd" :key="at" :data-odd="one.kind">
            {{ oddWords(one) }}
          </li>
        </ul>
      </template>
      <p v-if="accepted" class="dim">
        {{ say('compare.accepted', { by: accepted.by ?? '' }) }}
      </p>
    </Resource>
    <template #beside>
      <v-btn
        v-if="open && plan && may"
        variant="outlined"
        @click="tell([{ topic: 'compare.unread', answer: 'write-all' }])"
        >{{ say('compare.accept') }}</v-btn
      >
    </template>
  </StageSheet>
</template>
