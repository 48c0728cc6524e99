<script lang="ts">
/** Write: the start card until it is started, then the run, from this very page. */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import { endOf } from '@plain-slate/texts'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useMainAction } from '../../keys/shortcuts.ts'
import Resource from '../../parts/Resource.vue'
import { useSay } from '../../base/said.ts'
import { useRead } from '../../server/query.ts'
import RunLive from '../run/RunLive.vue'
import StageSheet from '../sheet/StageSheet.vue'
import StartSlip from '../head/StartSlip.vue'
import { useJob } from '../job.ts'
import { usePlanPage } from '../sheet/plan-page.ts'

const say = useSay()
const { job, number } = useJob()
const router = useRouter()
const { plan } = usePlanPage()
const id = computed(() => job.data.value?.run ?? '')
const run = useRead('run', () => ({ params: { id: id.value } }), {
  enabled: () => id.value !== '',
  every: 3000,
})
const title = (data: Job) =>
  say('write.title.start', {
    build: data.plan?.title ?? '',
    end: endOf(data.device?.serial ?? ''),
    port: data.device?.port ?? '',
  })
const over = computed(() => run.data.value?.state === 'ended')
const goOn = () => void router.push(`/slips/${number.value}/first-start`)
/* While it goes on Enter does nothing: what is held stays what it is. */
useMainAction(() => {
  if (over.value && id.value !== '') goOn()
})
</script>

<template>
  <StageSheet v-if="id === ''" stage="write" :title="title" :lede="() => say('write.lede')">
    <template #default="{ job: data }">
      <StartSlip v-if="plan" :plan="plan" :job="data" />
    </template>
  </StageSheet>
  <Resource v-else v-slot="{ data }" :read="run">
    <template v-if="job.data.value">
      <RunLive :run="data" :job="job.data.value" />
      <p v-if="over" class="row no-print">
        <v-btn @click="goOn">
          {{ say('job.next', { stage: say('stage.first-start') }) }}<kbd>Enter</kbd>
        </v-btn>
      </p>
    </template>
  </Resource>
</template>
