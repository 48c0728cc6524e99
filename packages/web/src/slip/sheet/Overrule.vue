<script lang="ts">
/**
 * Overruling a rule for one package: who may is the rule's word, a reason stands beside it, and it can be taken
 * back. It touches no other rule.
 */
</script>

<script setup lang="ts">
import type { FindingShown } from '@plain-slate/api'
import { leastOf, overruleTopic, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import Trouble from '../../parts/Trouble.vue'
import SecondPerson from '../../people/SecondPerson.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

const props = defineProps<{ finding: FindingShown; package: string }>()
const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const { params, line, may: maySay } = useJob()
const put = useChange('jobOverrule')
const open = ref(false)
const reason = ref('')
const second = ref<string>()
const pin = ref('')

const LEAST = {
  anyone: leastOf('rule.overrule'),
  lead: leastOf('rule.overrule.lead'),
  two: leastOf('rule.overrule.two'),
} as const
const by = computed(() => props.finding.overruled)
const stands = computed(() => props.finding.remedy?.kind === 'overruled')
const may = computed(
  () => maySay.value && by.value !== 'nobody' && reaches(session.person?.role, LEAST[by.value]),
)
const told = computed(() => line(overruleTopic(props.finding.rule)))
const ready = computed(
  () => reason.value.trim() !== '' && (by.value !== 'two' || (second.value ?? '') !== ''),
)

async function tell(wanted: boolean) {
  const body = {
    rule: props.finding.rule,
    package: props.package,
    reason: reason.value.trim(),
    stands: wanted,
    ...(by.value === 'two' && second.value !== undefined
      ? { second: { person: second.value, pin: pin.value } }
      : {}),
  }
  pin.value = ''
  const done = await put.mutateAsync({ params: params.value, body }).catch(() => undefined)
  if (done === undefined) return
  open.value = false
  reason.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <div class="no-print">
    <p v-if="stands && told" class="small">
      {{ say('overrule.stands', { by: told.by ?? '', note: told.note ?? '' }) }}
    </p>
    <p v-if="!may" class="dim small">{{ say(`overrule.by.${by}`) }}</p>
    <button v-else type="button" class="act" :aria-expanded="open" @click="open = !open">
      {{ stands ? say('overrule.back') : say('overrule.open') }}
    </button>
    <form v-if="open" class="overruling" @submit.prevent="tell(!stands)">
      <p class="small">{{ say(`overrule.by.${by}`) }}</p>
      <v-text-field v-model="reason" :label="say('overrule.reason')" maxlength="2000" />
      <SecondPerson v-if="by === 'two'" v-model:person="second" v-model:pin="pin" />
      <button type="submit" class="act" :disabled="!ready || put.isPending.value">
        {{ stands ? say('overrule.back.go') : say('overrule.go') }}
      </button>
      <Trouble v-if="put.error.value" :trouble="troubleOf(put.error.value)" quiet />
    </form>
  </div>
</template>

<style scoped>
.overruling {
  display: grid;
  gap: 6px;
  margin: 6px 0;
}
</style>
