<script lang="ts">
/** Taking a family in from its file: what is wrong with it by line, what it would change, and the act under a name. */
</script>

<script setup lang="ts">
import type { Family } from '@plain-slate/core'
import { leastOf, reaches } from '@plain-slate/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import FileField from '../parts/FileField.vue'
import Trouble from '../parts/Trouble.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import type { Answer } from '../server/call.ts'
import { troubleOf } from '../server/call.ts'
import { renew, useChange } from '../server/query.ts'
import FamilyDecided from './FamilyDecided.vue'
import FamilyTrial from './FamilyTrial.vue'

const say = useSay()
const client = useQueryClient()
const session = useSessionStore()
const change = useChange('familyTake')
const may = computed(() => reaches(session.person?.role, leastOf('family.take')))
const read = ref<Answer<'familyTake'>>()
const name = ref('')
/** The text that was read: what is taken in is what was shown. */
const text = ref('')

async function ask(take: boolean) {
  read.value = await change.mutateAsync({ body: { text: text.value, take } }).catch(() => undefined)
  if (read.value?.taken === true) renew(client, 'shop')
}
async function chosen(file: File) {
  read.value = undefined
  name.value = file.name
  text.value = await file.text()
  await ask(false)
}
const family = computed(() => read.value?.family ?? undefined)
const profile = computed(() => family.value?.profile as unknown as Family | undefined)
const stands = computed(() => {
  const shown = family.value
  if (shown === undefined) return ''
  const { known, version } = shown
  if (known === null) return say('families.take.new')
  return say(known < version ? 'families.take.newer' : 'families.take.older', { known })
})
const fits = computed(() => {
  const shown = family.value
  if (shown === undefined || read.value?.taken === true || shown.clashes.length > 0) return false
  return shown.known === null || shown.known < shown.version
})
</script>

<template>
  <section v-if="may" class="no-print" aria-labelledby="take-family" data-claim="take-family">
    <h2 id="take-family">
      {{ say('families.take') }} <small>{{ say('families.take.small') }}</small>
    </h2>
    <FileField :label="say('families.take.file')" accept=".yaml,.yml,.json" @chosen="chosen" />
    <template v-if="read && read.wrong.length > 0">
      <p class="amiss" role="status">
        {{ say('families.take.wrong', { n: read.wrong.length, name }) }}
      </p>
      <ul>
        <li v-for="(one, at) in read.wrong" :key="at">
          <b>{{ say('families.take.line', { line: one.line }) }}</b>
          <span v-if="one.path !== ''" class="mono"> {{ one.path }}</span>: {{ one.says }}
        </li>
      </ul>
    </template>
    <template v-if="family">
      <p role="status">
        {{
          read?.taken
            ? say('families.take.done', { id: family.id, version: family.version })
            : say('families.take.read', {
                maker: family.maker,
                id: family.id,
                version: family.version,
                models: family.models.length,
                modes: family.modes,
              })
        }}
        <template v-if="!read?.taken">{{ stands }}</template>
      </p>
      <p v-for="one in family.clashes" :key="one.model" class="amiss">
        {{ say('families.take.clash', one) }}
      </p>
      <FamilyDecided v-if="!read?.taken" :decided="family.decided" />
      <FamilyTrial v-if="profile && !read?.taken" :family="profile" :trial="family.trial" />
      <p v-if="fits" class="row">
        <v-btn :disabled="change.isPending.value" @click="ask(true)">
          {{ say('families.take.go') }}
        </v-btn>
      </p>
    </template>
    <Trouble v-if="change.error.value" :trouble="troubleOf(change.error.value)" quiet />
  </section>
</template>
