<script lang="ts">
/** A slip's front page: the way to where it stands, its head, changing it beside a colleague, its state, withdrawing texts. */
</script>

<script setup lang="ts">
import { isOver, reaches } from '@plain-slate/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useMainAction, useShortcuts } from '../../keys/shortcuts.ts'
import Resource from '../../parts/Resource.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { addressOf } from '../../server/call.ts'
import HeadForm from './HeadForm.vue'
import HeadView from './HeadView.vue'
import { keptDraft } from './kept.ts'
import StateActs from './StateActs.vue'
import Withdraw from './Withdraw.vue'
import { useSlip } from '../slip.ts'

const say = useSay()
const session = useSessionStore()
const router = useRouter()
const { slip, number } = useSlip()
const mayChange = computed(() => reaches(session.person?.role, 'technician'))
/** What was typed and not saved opens the form again. */
const changing = ref(keptDraft(number.value) !== undefined)
watch(number, (to) => (changing.value = keptDraft(to) !== undefined))
useShortcuts([
  {
    key: 'e',
    shown: 'E',
    label: 'slip.head.change',
    group: 'slip',
    act: () => {
      const data = slip.data.value
      if (mayChange.value && data !== undefined && !isOver(data.state)) changing.value = true
    },
  },
])
/** To the stage at which it stands. */
function goOn() {
  const data = slip.data.value
  if (data === undefined || isOver(data.state) || changing.value) return
  void router.push(`/slips/${data.number}/${data.stage}`)
}
useMainAction(goOn)
</script>

<template>
  <Resource v-slot="{ data }" :read="slip">
    <h1>
      {{
        say('slip.title', {
          device: data.device,
          intent: say(`intent.${data.intent}`),
          stage: say(`stage.${data.stage}`),
        })
      }}
    </h1>
    <p class="lede">
      {{
        isOver(data.state)
          ? say('slip.state.ended', { state: say(`state.${data.state}`) })
          : say(`stage.${data.stage}.will`)
      }}
    </p>
    <HeadForm v-if="changing" :key="data.number" :slip="data" @done="changing = false" />
    <template v-else>
      <HeadView :slip="data" />
      <p v-if="!isOver(data.state)" class="row no-print">
        <v-btn @click="goOn">
          {{ say('job.waits.go', { at: say(`stage.${data.stage}`) }) }}<kbd>Enter</kbd>
        </v-btn>
        <v-btn v-if="mayChange" variant="outlined" @click="changing = true">
          {{ say('slip.head.change') }}<kbd>E</kbd>
        </v-btn>
      </p>
    </template>
    <p class="row no-print papers">
      <a :href="addressOf('jobLabel', { params: { number: data.number } })">{{
        say('slip.label.device')
      }}</a>
      <a :href="addressOf('jobPaper', { params: { number: data.number } })">{{
        say('slip.paper')
      }}</a>
      <a
        :href="
          addressOf('jobPaper', { params: { number: data.number }, query: { texts: 'without' } })
        "
        >{{ say('slip.paper.plain') }}</a
      >
      <a :href="addressOf('slipFile', { params: { number: data.number } })">{{
        say('slip.file')
      }}</a>
      <a
        :href="addressOf('slipFile', { params: { number: data.number }, query: { texts: 'with' } })"
        >{{ say('slip.file.personal') }}</a
      >
    </p>
    <template v-if="mayChange">
      <StateActs :slip="data" />
      <Withdraw v-if="!data.withdrawn" :slip="data" />
    </template>
  </Resource>
</template>

<style scoped>
.papers {
  flex-wrap: wrap;
  gap: 4px 20px;
}
</style>
