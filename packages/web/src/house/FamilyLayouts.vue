<script lang="ts">
/** A family's layouts, each as a wall: what the devices are that have it, and its partitions in device order. */
</script>

<script setup lang="ts">
import type { Family } from '@plain-slate/core'
import { mibOf, partitionsOf, restingFate } from '@plain-slate/core'
import { computed } from 'vue'
import Wall from '../pictures/Wall.vue'
import { useSay } from '../base/said.ts'

const props = defineProps<{ family: Family }>()
const say = useSay()
const MIB = 1024 * 1024
/** What the customer's part is drawn as: the file does not say how large it is. */
const REST_MIB = 8192

/** Every layout that a device of the family may have: those that are alike stand once, with all who have them. */
const layouts = computed(() => {
  const by = new Map<string, { readonly who: string[]; readonly parts: readonly Part[] }>()
  for (const { code, boards, storages } of props.family.models)
    for (const board of boards)
      for (const storageGb of storages) {
        const parts = partsOf({ model: code, board, storageGb })
        const key = JSON.stringify(parts)
        const known = by.get(key) ?? { who: [], parts }
        known.who.push(`${code} ${board} ${storageGb}`)
        by.set(key, known)
      }
  return [...by.values()].map(({ who, parts }) => ({ who: whoHave(who), parts }))
})
type Part = ReturnType<typeof partsOf>[number]

function partsOf(about: { model: string; board: string; storageGb: number }) {
  return partitionsOf(props.family, about).map(({ name, role }) => {
    const mib = mibOf(props.family, name, about)
    return {
      name,
      role,
      bytes: (mib ?? REST_MIB) * MIB,
      size:
        mib === undefined ? say('family.part.rest') : say('family.part.mib', { n: mib.toString() }),
    }
  })
}

/** "CORV-4N B1 64": by model and board, storages together. */
function whoHave(who: readonly string[]): string {
  const by = new Map<string, string[]>()
  for (const one of who) {
    const [model = '', board = '', storage = ''] = one.split(' ')
    const key = `${model} ${board}`
    by.set(key, [...(by.get(key) ?? []), storage])
  }
  return [...by]
    .map(([who, storage]) => say('family.layout.of', { who, storage: storage.join(', ') }))
    .join('; ')
}
const course = (parts: readonly Part[], title: string) => ({
  title,
  bricks: parts.map(({ name, role, size }) => ({
    partition: name,
    fate: restingFate(role, 'absent'),
    label: name,
    says: say('family.part', { name, role, size }),
  })),
})
</script>

<template>
  <h2 id="layouts">
    {{ say('family.layouts') }} <small>{{ say('family.layouts.small') }}</small>
  </h2>
  <section v-for="layout in layouts" :key="layout.who" :aria-label="layout.who">
    <h3>{{ layout.who }}</h3>
    <Wall :partitions="layout.parts" :courses="[course(layout.parts, '')]" />
    <p class="small dim">
      {{ layout.parts.map(({ name, size }) => `${name} ${size}`).join(', ') }}
    </p>
  </section>
</template>

<style scoped>
h3 {
  font-size: 14px;
  font-weight: 600;
  margin: 8px 0 4px;
}
p {
  margin: 2px 0 8px;
}
</style>
