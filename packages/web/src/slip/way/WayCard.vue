<script lang="ts">
/**
 * The way into a mode: where the device is now, then its next leg as a card. Keys on the outline, a ring that counts
 * with the hands, what arrival looks like, what it is taken for, the usual slip and the way back.
 */
</script>

<script setup lang="ts">
import type { Mode } from '@plain-slate/core'
import { computed, ref, watch } from 'vue'
import { useSay } from '../../base/said.ts'
import Resource from '../../parts/Resource.vue'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'
import BeforeLeaving from '../sheet/BeforeLeaving.vue'
import LegCard from './LegCard.vue'

const props = defineProps<{
  to: Mode
  /** Where it begins, as far as a plan says so. */
  begin?: Mode | undefined
  /** A run waits there, and tells the device on over the link where that is the way. */
  driven?: boolean
}>()
const emit = defineEmits<{ arrived: [] }>()
const say = useSay()
const { params, tell, may } = useJob()
/** Where somebody says it is, as long as no link tells. */
const from = ref<Mode | undefined>(props.begin)
const way = useRead('jobWay', () => ({
  params: params.value,
  query: { to: props.to, ...(from.value === undefined ? {} : { from: from.value }) },
}))
watch(
  () => props.to,
  () => (from.value = props.begin),
)
const leg = computed(() => way.data.value?.legs?.[0])
/** Over the link, and neither out of a running system nor into one: no hands are needed. */
const isTold = computed(() => {
  const now = leg.value
  const ends = [now?.from.kind, now?.to.kind]
  return props.driven === true && now?.hands === false && !ends.includes('system')
})
const legs = computed(() => way.data.value?.legs?.length ?? 0)
const topic = (mode: Mode) => `way.${mode}`

/** What it shows, said by whoever has it in front of them: it is kept, and the way goes on from there. */
async function shows(mode: Mode) {
  const aim = leg.value?.to.id
  from.value = mode
  if (aim === undefined) return
  await tell([{ topic: topic(aim), answer: mode === aim ? 'arrived' : 'missed' }])
  if (mode === props.to) emit('arrived')
}
/** Where the link sees it come, while somebody counts: at the leg's end, or somewhere else. */
watch(
  () => way.data.value,
  (now, before) => {
    if (now === undefined || before === undefined) return
    /* Off it says nothing: a device that was to be switched off and is heard no more is taken to be so. */
    const off = before.legs?.[0]?.to
    if (before.seen && !now.seen && off?.kind === 'off') from.value = off.id
    if (!now.seen) return
    if (now.from?.id === now.to.id) emit('arrived')
    const aim = before.legs?.[0]
    if (aim === undefined || now.from === null || now.from.id === before.from?.id) return
    if (advance.value?.begun() !== true) return
    const answer = now.from.id === aim.to.id ? 'arrived' : 'missed'
    void tell([{ topic: topic(aim.to.id), answer }])
  },
)
const advance = ref<InstanceType<typeof LegCard>>()
const before = ref<InstanceType<typeof BeforeLeaving>>()
defineExpose({ next: () => (before.value ? before.value.focus() : advance.value?.next()) })
</script>

<template>
  <section class="way" :aria-label="say('way.title', { mode: way.data.value?.to.name ?? to })">
    <Resource v-slot="{ data }" :read="way">
      <template v-if="data.from === null">
        <h2>{{ say('way.where') }}</h2>
        <p>{{ say('way.where.ask') }}</p>
        <p class="looks" role="group" :aria-label="say('way.where')">
          <button
            v-for="one in data.shows"
            :key="one.mode.id"
            type="button"
            class="act"
            @click="from = one.mode.id"
          >
            {{ one.looks }}
          </button>
        </p>
      </template>
      <p v-else-if="data.legs === null" class="amiss" role="status">
        {{ say('way.none', { from: data.from.name, to: data.to.name }) }}
      </p>
      <p v-else-if="leg === undefined" role="status">
        {{ say('way.there', { mode: data.to.name }) }}
      </p>
      <template v-else>
        <h2>
          {{ say('way.leg', { from: leg.from.name, to: leg.to.name }) }}
          <small>{{
            legs === 1 ? say('way.legs.last') : say('way.legs', { n: legs, to: data.to.name })
          }}</small>
        </h2>
        <p class="dim small">
          {{ say(data.seen ? 'way.seen' : 'way.said', { mode: data.from.name }) }}
          <button v-if="!data.seen" type="button" class="act no-print" @click="from = undefined">
            {{ say('way.elsewhere') }}
          </button>
        </p>
        <p v-if="data.drains" class="dim small" data-claim="drains">
          {{
            data.drains.here === null
              ? say('way.drains', { mode: data.to.name, n: data.drains.perMinute })
              : say('way.drains.here', {
                  mode: data.to.name,
                  n: data.drains.perMinute,
                  here: data.drains.here,
                })
          }}
        </p>
        <p v-if="data.unheard !== null" class="amiss" role="status" data-claim="unheard">
          {{ say('way.unheard', { driver: data.unheard, mode: data.to.name }) }}
        </p>
        <BeforeLeaving
          v-if="data.first && data.first.open > 0"
          ref="before"
          :leave="data.first"
          :permission="data.permission"
          :steps="data.permissionSteps"
        />
        <p v-else-if="isTold" role="status" data-claim="way.told">{{ say('way.told') }}</p>
        <LegCard
          v-else
          ref="advance"
          :key="`${leg.from.id} ${leg.to.id} ${data.missed}`"
          :leg="leg"
          :outline="data.outline"
          :missed="data.to.id === leg.to.id ? data.missed : 0"
          :permission="data.permission"
          :may="may"
          @shows="shows"
        />
      </template>
    </Resource>
  </section>
</template>

<style scoped>
.way {
  border: 1px solid var(--line);
  padding: 12px 16px;
  margin: 8px 0 14px;
  background: var(--raised);
}
h2 {
  margin-top: 0;
}
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
