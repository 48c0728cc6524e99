<script lang="ts">
/** What a person can do with a run now: say that hands are done, stop, take up, go on elsewhere, put away. */
</script>

<script setup lang="ts">
import type { RunShown } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useShortcuts } from '../keys/shortcuts.ts'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ run: RunShown }>()
const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const ways = {
  done: useChange('runDone'),
  stop: useChange('runStop'),
  takeUp: useChange('runTakeUp'),
  move: useChange('runMove'),
  putAway: useChange('runPutAway'),
}
const may = computed(() => reaches(session.person?.role, leastOf('run.hands')))
const mayTakeUp = computed(() => reaches(session.person?.role, leastOf('run.start')))
const busy = computed(() => Object.values(ways).some((way) => way.isPending.value))
const trouble = computed(() => {
  const error = Object.values(ways).find((way) => way.error.value !== null)?.error.value
  return error === null || error === undefined ? undefined : troubleOf(error)
})
const params = computed(() => ({ id: props.run.id }))
const under = computed(() => ['wanted', 'running'].includes(props.run.state))
/** A journal that cannot be followed is not taken up: the way on is a new plan. */
const isFollowed = computed(() => props.run.why?.code !== 'journal')
/** What was said against the work is settled first; in doubt it goes on to where it is safe to wait. */
const isHeld = computed(
  () => (props.run.against !== null || props.run.short !== null) && props.run.hold === null,
)
const canBeTakenUp = computed(
  () =>
    !isHeld.value && (props.run.ownerless || (props.run.state === 'stopped' && isFollowed.value)),
)
const stopWord = computed(() => {
  if (props.run.ownerless) return 'run.stop.here'
  return props.run.size > 0 ? 'run.stop' : 'run.stop.now'
})

function settle() {
  renew(client, 'run')
  renew(client, 'bench')
}
async function done() {
  const { asked } = props.run
  if (asked === null || !may.value || busy.value) return
  const input = { params: params.value, body: { command: asked.command } }
  await ways.done.mutateAsync(input).catch(() => undefined)
  settle()
}
async function go(way: 'stop' | 'takeUp' | 'putAway') {
  await ways[way].mutateAsync({ params: params.value }).catch(() => undefined)
  settle()
}
async function move(port: string) {
  const input = { params: params.value, body: { port } }
  await ways.move.mutateAsync(input).catch(() => undefined)
  settle()
}
useShortcuts([{ key: '.', label: 'keys.done', group: 'everywhere', act: () => void done() }])
</script>

<template>
  <p v-if="run.asked && may" class="ask">
    <v-btn :disabled="busy" @click="done">{{ say('run.ask.done') }}<kbd>.</kbd></v-btn>
  </p>
  <p v-if="may" class="row">
    <template v-if="mayTakeUp && run.elsewhere && isFollowed && !isHeld">
      <v-btn :disabled="busy" @click="move(run.elsewhere)">{{
        say('run.move', { port: run.elsewhere })
      }}</v-btn>
    </template>
    <template v-else-if="mayTakeUp && canBeTakenUp">
      <v-btn :disabled="busy" @click="go('takeUp')">{{ say('run.take-up') }}</v-btn>
    </template>
    <template v-if="under && run.stop === null && run.hold === null">
      <v-btn variant="outlined" :disabled="busy" @click="go('stop')">{{ say(stopWord) }}</v-btn>
      <span class="dim small">
        <slot name="stop">{{ say('run.stop.hint') }}</slot>
      </span>
    </template>
    <template v-if="!under && run.hold === null">
      <v-btn variant="outlined" :disabled="busy" @click="go('putAway')">
        {{ say('run.put-away') }}
      </v-btn>
      <span class="dim small">{{ say('run.put-away.hint') }}</span>
    </template>
  </p>
  <Trouble v-if="trouble" :trouble="trouble" quiet />
</template>

<style scoped>
.ask {
  border-left: 6px solid var(--ochre);
  padding: 4px 14px;
  margin: 8px 0;
}
.row {
  flex-wrap: nowrap;
  margin: 10px 0;
}
</style>
