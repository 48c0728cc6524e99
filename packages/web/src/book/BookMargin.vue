<script lang="ts">
/** Beside the Book: its head, when the chain was walked last, exports. */
</script>

<script setup lang="ts">
import { reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import Margin from '../parts/Margin.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { addressOf, troubleOf } from '../server/call.ts'
import { renew, useChange, useRead } from '../server/query.ts'
import { useShop } from '../time/shop.ts'
import { useBookQuery } from './query.ts'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const { when } = useShop()
const { input } = useBookQuery()
const book = useRead('book', () => input.value, { keep: true })
const walk = useChange('bookCheck')
const mayExport = computed(() => reaches(session.person?.role, 'technician'))
const check = computed(() => walk.data.value ?? book.data.value?.check ?? null)

async function go() {
  await walk.mutateAsync({}).catch(() => undefined)
  renew(client, 'book')
}
</script>

<template>
  <Margin
    v-if="book.data.value"
    :title="say('book.head')"
    :right="String(book.data.value.head.seq)"
  >
    <p class="mono hash">{{ book.data.value.head.hash }}</p>
    <p class="dim">{{ say('book.head.explain') }}</p>
    <p v-if="check === null">{{ say('book.unchecked') }}</p>
    <p v-else-if="check.holds">
      {{ say('book.checked', { at: when(check.at), entries: check.entries }) }}
    </p>
    <p v-else class="broken" role="alert">
      {{
        say('book.broken', {
          at: when(check.at),
          seq: check.broken?.seq ?? '?',
          why: check.broken?.why ?? '',
        })
      }}
    </p>
    <template v-if="mayExport">
      <p>
        <button type="button" class="act" :disabled="walk.isPending.value" @click="go">
          {{ say('book.check') }}
        </button>
      </p>
      <Trouble v-if="walk.error.value" :trouble="troubleOf(walk.error.value)" quiet />
      <p>
        <a :href="addressOf('bookJsonl')" download>{{ say('book.jsonl') }}</a>
        · <a :href="addressOf('bookCsv', input)" download>{{ say('book.csv') }}</a>
      </p>
    </template>
  </Margin>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.hash {
  overflow-wrap: anywhere;
  font-size: 12.5px;
}
.broken {
  color: var(--brick);
  font-weight: 600;
}
</style>
