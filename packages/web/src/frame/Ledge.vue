<script lang="ts">
/** The ledge: what is physically on the bench, one tile a port, in sight whatever the place. */
</script>

<script setup lang="ts">
import { useSay } from '../said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const bench = useRead('bench')
</script>

<template>
  <section class="ledge v-theme--ledge" :aria-label="say('frame.ledge')">
    <div v-for="port in bench.data.value?.ports ?? []" :key="port.name" class="port">
      <div class="word">
        {{ say('port.free') }}
        <span class="mono">{{ port.name }}</span>
      </div>
      <div class="cable">
        {{
          port.cable === null ? say('ledge.no-cable') : say('ledge.cable', { cable: port.cable })
        }}
      </div>
    </div>
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
  background: var(--desk);
  padding: 7px 12px 8px;
  color: var(--ink-2);
  min-width: 0;
}
.word {
  display: flex;
  justify-content: space-between;
  font-weight: 650;
  font-size: 17px;
  line-height: 1.3;
  white-space: nowrap;
}
.word .mono {
  font-size: 12px;
  font-weight: 600;
  margin-top: 4px;
}
.cable {
  font-size: 12px;
  margin-top: 2px;
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
