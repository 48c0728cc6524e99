<script lang="ts">
/** The ledge: what is physically on the bench, one tile a port, in sight whatever the place. */
</script>

<script setup lang="ts">
import type { Port } from '@plain-slate/api'
import { portWord } from '@plain-slate/texts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const bench = useRead('bench', {}, { every: 5000 })
const END = 4
/** More tiles than this are narrow ones. */
const MOST_WIDE = 6
const end = (serial: string) => say('ledge.end', { end: serial.slice(-END) })

/** Slip and device: whose job it is, else which device answers. */
function what({ run, seen, slip }: Port): string {
  const serial = run?.serial ?? seen?.serial
  const parts = [
    run?.slip ?? slip?.number ?? '',
    seen?.model ?? '',
    serial === undefined ? '' : end(serial),
  ]
  return parts.filter((part) => part !== '').join(' ')
}
/** The slip's live stage; where no slip claims it, the port itself. */
const address = ({ slip, name }: Port) =>
  slip === null ? `/bench/${name}` : `/slips/${slip.number}/${slip.stage}`
function where({ cable, seen }: Port): string {
  const hung = cable === null ? say('ledge.no-cable') : say('ledge.cable', { cable })
  return seen === null || seen.battery === null
    ? hung
    : `${hung} · ${say('ledge.battery', { n: seen.battery })}`
}
</script>

<template>
  <section
    class="ledge v-theme--ledge"
    :class="{ many: (bench.data.value?.ports.length ?? 0) > MOST_WIDE }"
    :aria-label="say('frame.ledge')"
  >
    <router-link
      v-if="bench.data.value?.ports.length === 0"
      to="/house#house-ports"
      class="port none"
    >
      <div class="word">{{ say('ledge.none') }}</div>
      <div class="where">{{ say('ledge.none.todo') }}</div>
    </router-link>
    <router-link
      v-for="port in bench.data.value?.ports ?? []"
      :key="port.name"
      :to="address(port)"
      class="port"
      :class="port.word"
      :data-state="port.word"
    >
      <div class="word">
        <span class="said">{{ portWord(say, port) }}</span>
        <span class="mono">{{ port.name }}</span>
      </div>
      <div class="what mono">{{ what(port) }}</div>
      <div class="where">{{ where(port) }}</div>
      <div v-if="port.run && port.run.done !== null" class="bar">
        <div :style="{ width: `${port.run.done * 100}%` }" />
      </div>
    </router-link>
  </section>
</template>

<style scoped>
.ledge {
  grid-area: ledge;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 1px;
  background: var(--raised);
  border-top: 4px solid var(--wood);
  overflow: hidden;
}
.port {
  position: relative;
  display: block;
  background: var(--desk);
  padding: 6px 12px 8px;
  color: var(--ink) !important;
  text-decoration: none !important;
  min-width: 0;
}
.port:focus-visible {
  outline-offset: -3px;
}
.free {
  color: var(--ink-2) !important;
}
.hands-now {
  background: var(--ochre);
  color: var(--desk) !important;
}
.hands-off,
.first-start {
  background: repeating-linear-gradient(135deg, var(--desk) 0 10px, var(--sheet) 10px 20px);
}
.stopped,
.in-doubt {
  box-shadow: inset 0 5px 0 var(--brick);
}
.done {
  box-shadow: inset 0 5px 0 var(--lichen);
}
.word {
  display: flex;
  justify-content: space-between;
  font-weight: 650;
  font-size: 19px;
  line-height: 1.25;
  white-space: nowrap;
  gap: 6px;
}
.said {
  overflow: hidden;
  text-overflow: ellipsis;
}
.many .word {
  font-size: 15px;
}
.many .port {
  padding: 6px 8px 8px;
}
.word .mono {
  font-size: 13px;
  font-weight: 600;
  margin-top: 4px;
}
.what {
  font-size: 13px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.where {
  font-size: 12px;
}
.bar {
  position: absolute;
  left: 12px;
  right: 12px;
  bottom: 6px;
  height: 5px;
  background: var(--raised);
}
.bar div {
  height: 100%;
  background: var(--sky);
}
@media (max-width: 700px) {
  .ledge {
    grid-template-columns: repeat(3, minmax(0, 1fr));
    grid-auto-flow: row;
  }
}
@media print {
  .ledge {
    display: none;
  }
}
</style>
