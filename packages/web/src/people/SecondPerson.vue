<script lang="ts">
/** A second person who stands by: their name and their own PIN. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import { useSessionStore } from './session.ts'

const person = defineModel<string | undefined>('person')
const pin = defineModel<string>('pin', { required: true })
const say = useSay()
const session = useSessionStore()
const faces = useRead('faces')
const others = computed(() =>
  (faces.data.value ?? [])
    .filter((face) => face.id !== session.person?.id)
    .map((face) => ({ value: face.id, title: `${face.name}, ${say(`role.${face.role}`)}` })),
)
</script>

<template>
  <v-select v-model="person" :items="others" :label="say('second.person')" />
  <v-text-field
    v-model="pin"
    :label="say('second.pin')"
    type="password"
    inputmode="numeric"
    autocomplete="off"
    maxlength="8"
  />
</template>
