<script lang="ts">
/** One person's row: role, presence, and what a lead may do about them. */
</script>

<script setup lang="ts">
import type { BodyOf, Contract, Person } from '@plain-slate/api'
import { ROLES } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const props = defineProps<{ person: Person; mayChange: boolean }>()
const say = useSay()
const client = useQueryClient()
const change = useChange('personChange')
const givingPin = ref(false)
const pin = ref('')

async function go(body: BodyOf<Contract['personChange']>) {
  const done = await change
    .mutateAsync({ params: { id: props.person.id }, body })
    .catch(() => undefined)
  renew(client, 'people')
  if (done === undefined) return
  givingPin.value = false
  pin.value = ''
}
</script>

<template>
  <tr>
    <td>
      <b :class="{ dim: !person.active }">{{ person.name }}</b>
      <Trouble v-if="change.error.value" :trouble="troubleOf(change.error.value)" quiet />
    </td>
    <td>
      <select
        v-if="mayChange"
        class="pick"
        :value="person.role"
        :aria-label="say('house.role-of', { name: person.name })"
        @change="go({ role: ($event.target as HTMLSelectElement).value as Person['role'] })"
      >
        <option v-for="role in ROLES" :key="role" :value="role">{{ say(`role.${role}`) }}</option>
      </select>
      <template v-else>{{ say(`role.${person.role}`) }}</template>
    </td>
    <td>{{ person.active ? say('house.present') : say('house.left') }}</td>
    <td v-if="mayChange">
      <form v-if="givingPin" class="row" @submit.prevent="go({ pin })">
        <input
          v-model="pin"
          class="mono pick"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="8"
          :aria-label="say('house.new-pin-for', { name: person.name })"
        />
        <button class="act" :disabled="pin.length < 4">{{ say('house.give-pin') }}</button>
        <button type="button" class="act" @click="givingPin = false">
          {{ say('house.cancel') }}
        </button>
      </form>
      <span v-else class="row">
        <button
          type="button"
          class="act"
          :aria-label="say('house.new-pin-for', { name: person.name })"
          @click="givingPin = true"
        >
          {{ say('house.new-pin') }}
        </button>
        <button type="button" class="act" @click="go({ active: !person.active })">
          {{
            person.active
              ? say('house.let-go', { name: person.name })
              : say('house.take-back', { name: person.name })
          }}
        </button>
      </span>
    </td>
  </tr>
</template>

<style scoped>
input {
  width: 110px;
}
</style>
