<script lang="ts">
/** Beside every page of a slip: notes, writing one, and who did what. */
</script>

<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { actorWords, useActWords } from '../../book/words.ts'
import Margin from '../../parts/Margin.vue'
import Resource from '../../parts/Resource.vue'
import Trouble from '../../parts/Trouble.vue'
import { useSay } from '../../base/said.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useShop } from '../../time/shop.ts'
import { useSlip } from '../slip.ts'

const say = useSay()
const client = useQueryClient()
const { when } = useShop()
const { number, history } = useSlip()
const actWords = useActWords()
const put = useChange('slipNote')
const text = ref('')
/** The margin holds what happened last; the Book holds all. */
const SHOWN = 8

const notes = computed(() => (history.data.value ?? []).filter((line) => line.act === 'slip.noted'))

async function go() {
  if (text.value.trim() === '' || put.isPending.value) return
  const input = { params: { number: number.value }, body: { text: text.value } }
  const done = await put.mutateAsync(input).catch(() => undefined)
  if (done === undefined) return
  text.value = ''
  renew(client, 'slip')
}
</script>

<template>
  <Margin :title="say('slip.notes')" :right="notes.length > 0 ? String(notes.length) : ''">
    <form class="no-print" @submit.prevent="go">
      <v-textarea v-model="text" :label="say('slip.note')" rows="2" maxlength="2000" />
      <v-btn v-if="text.trim() !== ''" type="submit" size="small">{{ say('slip.note.go') }}</v-btn>
      <Trouble v-if="put.error.value" :trouble="troubleOf(put.error.value)" quiet />
    </form>
    <p v-if="history.data.value && notes.length === 0" class="dim">{{ say('slip.note.empty') }}</p>
    <div v-for="note in notes" :key="note.seq" class="note">
      <p :class="{ dim: note.texts['note'] === null }">
        {{ note.texts['note'] ?? say('book.withdrawn') }}
      </p>
      <span class="dim small">{{ note.by }} · {{ when(note.at) }}</span>
    </div>
  </Margin>
  <h2>
    {{ say('slip.history') }} <small>{{ say('slip.history.small') }}</small>
  </h2>
  <Resource v-slot="{ data }" :read="history">
    <div v-for="line in data.slice(0, SHOWN)" :key="line.seq" class="note">
      <b>{{ actorWords(say, line) }}</b> {{ actWords(line) }}
      <span class="dim small block">{{ when(line.at) }}</span>
    </div>
    <router-link v-if="data.length > SHOWN" :to="`/book?slip=${number}`">
      {{ say('slip.history.more', { n: data.length }) }}
    </router-link>
  </Resource>
</template>

<style scoped>
.note {
  border-top: 1px solid var(--rule);
  padding: 7px 0;
}
.note p {
  margin: 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.block {
  display: block;
}
form {
  margin-bottom: 12px;
}
.v-btn {
  margin-top: 8px;
}
</style>
