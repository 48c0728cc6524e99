<script setup lang="ts">
import { endOf } from '@plain-slate/texts'
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
</script>

<template>
  <Margin :title="say('write.margin')">
    <HandsNext />
    <div v-if="port?.seen" class="note">
      <b>{{ say('write.margin.device') }}</b>
      <p>
        {{
          say('write.margin.device.says', {
            mode: port.seen.mode.name,
            battery: port.seen.battery ?? say('seen.not-shown'),
            end: endOf(port.seen.serial),
          })
        }}
      </p>
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
