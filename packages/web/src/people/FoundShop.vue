<script lang="ts">
/** An empty shop: its name and its first lead. */
</script>

<script setup lang="ts">
import type { Face } from '@plain-slate/api'
import { useQueryClient } from '@tanstack/vue-query'
import { reactive } from 'vue'
import { vFocus } from '../parts/focus.ts'
import { useSay } from '../base/said.ts'
import { useChange } from '../server/query.ts'
import { troubleOf } from '../server/call.ts'
import Trouble from '../parts/Trouble.vue'

const emit = defineEmits<{ founded: [person: Face] }>()
const say = useSay()
const client = useQueryClient()
const found = useChange('firstLead')
const draft = reactive({ shop: '', place: '', name: '', pin: '' })

async function go() {
  const answer = await found.mutateAsync({ body: draft }).catch(() => undefined)
  if (answer?.person === undefined || answer.person === null) return
  client.removeQueries()
  emit('founded', answer.person)
}
</script>

<template>
  <h1>{{ say('found.title') }}</h1>
  <p class="lede">{{ say('found.lede') }}</p>
  <form class="form" @submit.prevent="go">
    <v-text-field v-model="draft.shop" v-focus :label="say('found.shop')" required />
    <v-text-field v-model="draft.place" :label="say('found.place')" required />
    <v-text-field v-model="draft.name" :label="say('found.name')" required />
    <v-text-field
      v-model="draft.pin"
      :label="say('found.pin')"
      type="password"
      inputmode="numeric"
      autocomplete="off"
      required
    />
    <div class="wide">
      <v-btn type="submit" :disabled="found.isPending.value">{{ say('found.go') }}</v-btn>
      <Trouble v-if="found.error.value" :trouble="troubleOf(found.error.value)" quiet />
    </div>
  </form>
</template>
