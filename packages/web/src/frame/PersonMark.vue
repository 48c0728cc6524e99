<script lang="ts">
/** The person's mark with what belongs to them: House, keys, handing over, signing off. */
</script>

<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'

const emit = defineEmits<{ keys: [] }>()
const say = useSay()
const route = useRoute()
const router = useRouter()
const session = useSessionStore()

function handOver() {
  void router.push({ path: '/sign-in', query: { to: route.fullPath } })
}
async function signOff() {
  await session.end()
  await router.push('/sign-in')
}
</script>

<template>
  <v-menu v-if="session.person" location="bottom end">
    <template #activator="{ props }">
      <button
        v-bind="props"
        type="button"
        class="person mono"
        :aria-label="
          say('frame.person', {
            initials: session.person.initials,
            name: session.person.name,
            role: say(`role.${session.person.role}`),
          })
        "
      >
        {{ session.person.initials }}
      </button>
    </template>
    <v-list>
      <v-list-item to="/house" :title="say('frame.house')" />
      <v-list-item :title="say('frame.keys')" @click="emit('keys')" />
      <v-list-item :title="say('frame.hand-over')" @click="handOver" />
      <v-list-item :title="say('frame.sign-off')" @click="signOff" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.person {
  min-width: 28px;
  height: 28px;
  border: 0;
  border-radius: 14px;
  background: var(--board);
  color: var(--chalk);
  font-weight: 600;
  font-size: 12px;
  cursor: pointer;
}
</style>
