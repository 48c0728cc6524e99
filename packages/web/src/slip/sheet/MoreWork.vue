<script lang="ts">
/** Another plan on the same slip, once a run of it has ended: what is read, picked and signed begins anew. */
</script>

<script setup lang="ts">
import { AGAIN_TOPIC } from '@plain-slate/core'
import { useRouter } from 'vue-router'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const say = useSay()
const router = useRouter()
const { number, tell } = useJob()
async function go() {
  await tell([{ topic: AGAIN_TOPIC, answer: 'next' }])
  await router.push(`/slips/${number.value}/readings`)
}
</script>

<template>
  <section class="no-print" aria-labelledby="again" data-claim="again">
    <h2 id="again">
      {{ say('again.title') }} <small>{{ say('again.small') }}</small>
    </h2>
    <p class="dim">{{ say('again.hint') }}</p>
    <p>
      <v-btn variant="outlined" @click="go">{{ say('again.go') }}</v-btn>
    </p>
  </section>
</template>
