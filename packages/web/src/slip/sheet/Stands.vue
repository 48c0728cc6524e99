<script lang="ts">
/**
 * What stands on the device, part by part, by its own digests; what the customer's data hang on; what is known of this
 * board to go wrong.
 */
</script>

<script setup lang="ts">
import type { Job } from '@plain-slate/api'
import { computed } from 'vue'
import { useSay } from '../../base/said.ts'
import Columns from '../../parts/Columns.vue'

const props = defineProps<{ job: Job }>()
const say = useSay()
const stands = computed(() => props.job.stands)
/** Whether what is signed together is of one build. */
const set = computed(() => {
  const { value } = stands
  if (value?.told !== true) return ''
  return value.set === null ? say('stands.mixed') : say('stands.set', { build: value.set })
})
const keys = computed(() => {
  const of = props.job.family?.dataKeys
  if (of === undefined) return ''
  return of.length === 0
    ? say('family.keys.none')
    : say('family.keys', { keys: of.map((one) => say(`family.key.${one}`)).join(', ') })
})
</script>

<template>
  <section v-if="stands && stands.parts.length > 0" aria-labelledby="stands" data-claim="stands">
    <h2 id="stands">
      {{ say('stands.title') }} <small>{{ say('stands.small') }}</small>
    </h2>
    <p v-if="set !== ''" :class="{ amiss: stands.set === null }">{{ set }}</p>
    <Columns by="stands" :columns="[say('stands.part'), say('stands.is')]">
      <tr v-for="part in stands.parts" :key="part.partition" :data-part="part.partition">
        <th scope="row">{{ part.partition }}</th>
        <td>
          {{
            part.builds.length === 0
              ? say('stands.unknown')
              : say('stands.of', { builds: part.builds.join(', ') })
          }}
        </td>
      </tr>
    </Columns>
  </section>
  <p v-if="keys !== ''" data-claim="keys">{{ keys }}</p>
  <p v-for="fault in job.faults" :key="fault.says" class="amiss" data-claim="fault">
    {{ say('stands.fault', { ...fault }) }}
  </p>
</template>
