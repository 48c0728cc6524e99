<script lang="ts">
/**
 * Another plan on the same slip, once a run of it has ended: what it is for is said, and what is read, picked and signed
 * begins anew.
 */
</script>

<script setup lang="ts">
import type { Intent } from '@plain-slate/core'
import { AGAIN_TOPIC, INTENTS } from '@plain-slate/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useSay } from '../../base/said.ts'
import { useJob } from '../job.ts'

const say = useSay()
const router = useRouter()
const { number, put, tell } = useJob()
const intent = ref<Intent>('restore')
const intents = computed(() => INTENTS.map((one) => ({ value: one, title: say(`intent.${one}`) })))
async function go() {
  await tell([{ topic: AGAIN_TOPIC, answer: intent.value }])
  if (put.error.value === null) await router.push(`/slips/${number.value}/readings`)
}
</script>

<template>
  <section class="no-print" aria-labelledby="again" data-claim="again">
    <h2 id="again">
      {{ say('again.title') }} <small>{{ say('again.small') }}</small>
    </h2>
    <p class="dim">{{ say('again.hint') }}</p>
    <form class="again" @submit.prevent="go">
      <v-select v-model="intent" :items="intents" :label="say('again.intent')" />
      <v-btn type="submit" variant="outlined">{{ say('again.go') }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
.again {
  display: flex;
  gap: 10px;
  align-items: start;
  max-width: 420px;
}
</style>
