<script lang="ts">
/** A lead adds somebody. */
</script>

<script setup lang="ts">
import { ROLES } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'

const say = useSay()
const client = useQueryClient()
const add = useChange('personAdd')
const draft = reactive({ name: '', role: 'trainee' as (typeof ROLES)[number], pin: '' })
const roles = computed(() => ROLES.map((value) => ({ value, title: say(`role.${value}`) })))

async function go() {
  const done = await add.mutateAsync({ body: draft }).catch(() => undefined)
  if (done === undefined) return
  Object.assign(draft, { name: '', pin: '' })
  renew(client, 'people')
}
</script>

<template>
  <form @submit.prevent="go">
    <h2>{{ say('house.add') }}</h2>
    <div class="add">
      <v-text-field v-model="draft.name" :label="say('house.add.name')" maxlength="60" />
      <v-select v-model="draft.role" :items="roles" :label="say('house.add.role')" />
      <v-text-field
        v-model="draft.pin"
        :label="say('house.add.pin')"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        maxlength="8"
      />
      <v-btn type="submit" :disabled="draft.name.trim() === '' || draft.pin.length < 4">
        {{ say('house.add.go') }}
      </v-btn>
    </div>
    <Trouble v-if="add.error.value" :trouble="troubleOf(add.error.value)" quiet />
  </form>
</template>

<style scoped>
.add {
  display: grid;
  grid-template-columns: 1fr 150px 1fr auto;
  gap: 10px;
}
@media (max-width: 700px) {
  .add {
    grid-template-columns: 1fr;
  }
}
</style>
