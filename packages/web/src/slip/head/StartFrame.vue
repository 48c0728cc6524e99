<script lang="ts">
/** A start card: what is about to be written to which device, large, and the button that is held to start it. */
</script>

<script setup lang="ts">
import type { PlanShown } from '@plain-slate/api'
import { leastOf, reaches } from '@plain-slate/core'
import { endOf } from '@plain-slate/texts'
import { computed } from 'vue'
import HoldButton from '../../keys/HoldButton.vue'
import { useSessionStore } from '../../people/session.ts'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import Trouble from '../../parts/Trouble.vue'

const props = defineProps<{
  plan: PlanShown
  port: string
  /** Whose device it is, where a slip tells. */
  owner?: string
  busy: boolean
  error: Error | null
}>()
const emit = defineEmits<{ start: []; again: [] }>()
const say = useSay()
const session = useSessionStore()
const may = computed(() => reaches(session.person?.role, leastOf('run.start')))
const lost = computed(() => {
  const gone = props.plan.fates.filter(({ fate }) => fate !== 'kept').map(({ name }) => name)
  return gone.length === 0 ? say('plan.start.nothing') : gone.join(', ')
})
const about = computed(() => ({
  build: props.plan.title,
  end: endOf(props.plan.serial),
  port: props.port,
}))
</script>

<template>
  <section class="card" :aria-label="say('plan.start.title')">
    <dl>
      <div>
        <dt>{{ say('plan.start.port') }}</dt>
        <dd class="mono">{{ port }}</dd>
      </div>
      <div>
        <dt>{{ say('plan.start.serial') }}</dt>
        <dd class="mono">…{{ endOf(plan.serial) }}</dd>
      </div>
      <div v-if="owner !== undefined">
        <dt>{{ say('write.owner') }}</dt>
        <dd>{{ owner }}</dd>
      </div>
      <div>
        <dt>{{ say('plan.start.package') }}</dt>
        <dd class="mono">{{ plan.title }}</dd>
      </div>
      <div class="wide">
        <dt>{{ say('plan.start.lost') }}</dt>
        <dd>{{ lost }}</dd>
      </div>
    </dl>
    <p class="dim">{{ say('plan.start.caution') }}</p>
    <p v-if="may" class="no-print">
      <HoldButton
        :label="busy ? say('plan.starting') : say('plan.start.hold', about)"
        :disabled="busy"
        @held="emit('start')"
      />
    </p>
    <Trouble v-if="error" :trouble="troubleOf(error)" @again="emit('again')" />
  </section>
</template>

<style scoped>
.card {
  border: solid var(--rule);
  border-width: 1px 0;
  padding: 14px 0;
}
dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px 24px;
  margin: 0 0 12px;
}
.wide {
  grid-column: 1 / -1;
}
dt {
  font-size: 13px;
  color: var(--ink-2);
}
dd {
  margin: 0;
  font-size: 26px;
  font-weight: 650;
  line-height: 1.15;
  overflow-wrap: anywhere;
}
p {
  margin: 0 0 12px;
  max-width: 76ch;
}
</style>
