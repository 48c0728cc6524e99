<script lang="ts">
/** What is about to be written to which device, large, and the button that is held to start it. */
</script>

<script setup lang="ts">
import type { PlanShown } from '@plain-slate/api'
import type { Intent } from '@plain-slate/core'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import HoldButton from '../keys/HoldButton.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { endOf } from '@plain-slate/texts'
import { useSay } from '../said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'
import { usePort } from './bench-query.ts'

const props = defineProps<{
  plan: PlanShown
  asked: { port: string; package: string; intent: Intent; keepData: boolean }
}>()
const emit = defineEmits<{ again: [] }>()
const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const start = useChange('runStart')
const { change } = usePort()
const may = computed(() => reaches(session.person?.role, leastOf('run.start')))
const lost = computed(() => {
  const gone = props.plan.fates.filter(({ fate }) => fate !== 'kept').map(({ name }) => name)
  return gone.length === 0 ? say('plan.start.nothing') : gone.join(', ')
})

async function go() {
  const body = { ...props.asked, digest: props.plan.digest }
  const started = await start.mutateAsync({ body }).catch(() => undefined)
  renew(client, 'bench')
  /* The run is what this port shows from now on; its plan is behind it. */
  if (started !== undefined) change({ package: '' })
}
</script>

<template>
  <section class="card" :aria-label="say('plan.start.title')">
    <dl>
      <div>
        <dt>{{ say('plan.start.port') }}</dt>
        <dd class="mono">{{ plan.port }}</dd>
      </div>
      <div>
        <dt>{{ say('plan.start.serial') }}</dt>
        <dd class="mono">…{{ endOf(plan.serial) }}</dd>
      </div>
      <div>
        <dt>{{ say('plan.start.package') }}</dt>
        <dd>{{ plan.title }}</dd>
      </div>
      <div>
        <dt>{{ say('plan.start.lost') }}</dt>
        <dd>{{ lost }}</dd>
      </div>
    </dl>
    <p class="dim">{{ say('plan.start.caution') }}</p>
    <p v-if="may" class="row no-print">
      <HoldButton
        :label="
          start.isPending.value
            ? say('plan.starting')
            : say('plan.start.hold', {
                build: plan.title,
                end: endOf(plan.serial),
                port: plan.port,
              })
        "
        :disabled="start.isPending.value"
        @held="go"
      />
    </p>
    <Trouble
      v-if="start.error.value"
      :trouble="troubleOf(start.error.value)"
      @again="emit('again')"
    />
  </section>
</template>

<style scoped>
.card {
  border: solid var(--rule);
  border-width: 1px 0;
  padding: 10px 0;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 30px;
  margin: 0 0 6px;
}
dt {
  font-size: 12.5px;
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: 21px;
  font-weight: 650;
  line-height: 1.2;
}
p {
  margin: 0 0 8px;
  max-width: 72ch;
}
</style>
