<script lang="ts">
/** Copies of the shop: the folder in which one is made every night, and how the last came out. */
</script>

<script setup lang="ts">
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import CopyWords from '../parts/CopyWords.vue'
import Resource from '../parts/Resource.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange, useRead } from '../server/query.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const copies = useRead('copies', {}, { every: 30_000 })
const name = useChange('copiesName')
const may = computed(() => reaches(session.person?.role, leastOf('house.change')))
const folder = ref<string>()
const typed = computed(() => folder.value ?? copies.data.value?.folder ?? '')

async function go() {
  const done = await name
    .mutateAsync({ body: { folder: typed.value.trim() } })
    .catch(() => undefined)
  if (done !== undefined) folder.value = undefined
  renew(client, 'shop')
}
</script>

<template>
  <h2 id="house-copies">
    {{ say('copies.title') }} <small>{{ say('copies.small') }}</small>
  </h2>
  <Resource v-slot="{ data }" :read="copies">
    <CopyWords :copies="data" />
    <form v-if="may" class="named no-print" @submit.prevent="go">
      <v-text-field
        :model-value="typed"
        :label="say('copies.folder')"
        maxlength="300"
        class="mono"
        @update:model-value="folder = $event"
      />
      <v-btn type="submit" :disabled="name.isPending.value || typed.trim() === (data.folder ?? '')">
        {{ say('copies.go') }}
      </v-btn>
    </form>
    <p class="dim small">{{ say('copies.hint') }}</p>
    <Trouble v-if="name.error.value" :trouble="troubleOf(name.error.value)" quiet />
  </Resource>
</template>

<style scoped>
.named {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
}
</style>
