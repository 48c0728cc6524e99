<script setup lang="ts">
import { chargeWords, endOf } from '@plain-slate/texts'
import { computed } from 'vue'
import HandsNext from '../../places/HandsNext.vue'
import Margin from '../../parts/Margin.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import { useJob } from '../job.ts'

const say = useSay()
const { job } = useJob()
const id = computed(() => job.data.value?.run ?? '')
const run = useRead('run', () => ({ params: { id: id.value } }), {
  enabled: () => id.value !== '',
})
const bench = useRead('bench')
const port = computed(() => {
  const at = run.data.value?.port ?? job.data.value?.device?.port
  return bench.data.value?.ports.find(({ name }) => name === at)
})
/** While a run waits for it, what was seen of it at its port is of before: what answers now is told by the run. */
const waits = computed(() => run.data.value?.waiting ?? null)
const seen = computed(() => (waits.value === null ? port.value?.seen : waits.value.seen) ?? null)
const device = computed(() => {
  const { value } = seen
  if (value === null) return ''
  const own = value.serial === (run.data.value?.serial ?? job.data.value?.device?.serial)
  const end = endOf(value.serial)
  return [
    value.mode.name,
    say('write.margin.device.charge', { charge: chargeWords(say, value.battery) }),
    own ? say('write.margin.device.own', { end }) : say('write.margin.device.other', { end }),
  ].join(' · ')
})
</script>

<template>
  <Margin :title="say('write.margin')">
    <HandsNext />
    <div v-if="port && (seen !== null || waits !== null)" class="note" data-claim="device">
      <b>{{ say('write.margin.device') }}</b>
      <p>{{ seen === null ? say('write.margin.device.silent', { port: port.name }) : device }}</p>
    </div>
    <div v-if="port" class="note">
      <b>{{ say('write.margin.link') }}</b>
      <p>
        {{
          say('write.margin.link.says', {
            port: port.name,
            cable: port.cable ?? run.data.value?.cable ?? '–',
            losses: run.data.value?.losses ?? 0,
          })
        }}
      </p>
    </div>
  </Margin>
</template>

<style scoped>
.note {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
p {
  margin: 0;
}
</style>
