<script lang="ts">
/** Tokens for the shell: which hold, ending one, and making one, which is shown once. */
</script>

<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import Columns from '../parts/Columns.vue'
import Resource from '../parts/Resource.vue'
import Trouble from '../parts/Trouble.vue'
import { useSay } from '../base/said.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange, useRead } from '../server/query.ts'

const say = useSay()
const client = useQueryClient()
const tokens = useRead('tokens')
const make = useChange('tokenMake')
const strike = useChange('tokenStrike')
const draft = reactive({ name: '', pin: '' })
/** What a token that was just made reads. */
const made = ref<{ readonly name: string; readonly token: string }>()
const mayMake = computed(() => draft.name.trim().length > 1 && draft.pin.length > 3)
/* Real time, as tokens end by it: the shop's clock may be a demo's. */
const day = (at: string) => new Date(at).toLocaleDateString('en-GB', { dateStyle: 'medium' })

async function go() {
  const done = await make.mutateAsync({ body: { ...draft } }).catch(() => undefined)
  if (done === undefined) return
  made.value = { name: done.made.name, token: done.token }
  Object.assign(draft, { name: '', pin: '' })
  renew(client, 'people')
}

async function end(id: string) {
  await strike.mutateAsync({ params: { id } }).catch(() => undefined)
  made.value = undefined
  renew(client, 'people')
}
</script>

<template>
  <h2 id="house-tokens">
    {{ say('tokens.title') }} <small>{{ say('tokens.small') }}</small>
  </h2>
  <p class="dim small">{{ say('tokens.lede') }}</p>
  <Resource v-slot="{ data }" :read="tokens">
    <p v-if="data.length === 0">{{ say('tokens.none') }}</p>
    <Columns
      v-else
      by="house-tokens"
      :columns="[say('tokens.name'), say('tokens.whose'), say('tokens.until'), say('house.act')]"
    >
      <tr v-for="token in data" :key="token.id">
        <td>{{ token.name }}</td>
        <td>{{ token.person.name }}</td>
        <td>{{ day(token.endsAt) }}</td>
        <td>
          <button
            type="button"
            class="act"
            :aria-label="say('tokens.end-of', { name: token.name, person: token.person.name })"
            @click="end(token.id)"
          >
            {{ say('tokens.end') }}
          </button>
        </td>
      </tr>
    </Columns>
    <p v-if="made" role="status">
      {{ say('tokens.made', { name: made.name }) }}
      <code class="mono token">{{ made.token }}</code>
    </p>
    <form class="make no-print" @submit.prevent="go">
      <v-text-field v-model="draft.name" :label="say('tokens.for')" maxlength="60" />
      <v-text-field
        v-model="draft.pin"
        :label="say('tokens.pin')"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        maxlength="8"
      />
      <v-btn type="submit" :disabled="make.isPending.value || !mayMake">
        {{ say('tokens.go') }}
      </v-btn>
    </form>
    <Trouble
      v-if="make.error.value ?? strike.error.value"
      :trouble="troubleOf(make.error.value ?? strike.error.value)"
      quiet
    />
  </Resource>
</template>

<style scoped>
.make {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
}
.token {
  display: block;
  overflow-wrap: anywhere;
  user-select: all;
}
@media (max-width: 700px) {
  .make {
    grid-template-columns: 1fr;
  }
}
</style>
