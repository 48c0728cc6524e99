<script lang="ts">
/** Who is at the bench: choose a name, type a PIN. In an empty shop: found it. */
</script>

<script setup lang="ts">
import type { Face } from '@plain-slate/api'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShop } from '../time/shop.ts'
import { useSay } from '../base/said.ts'
import { call, troubleOf } from '../server/call.ts'
import type { Trouble as Told } from '../server/call.ts'
import { useRead } from '../server/query.ts'
import Resource from '../parts/Resource.vue'
import Trouble from '../parts/Trouble.vue'
import FoundShop from './FoundShop.vue'
import { useSessionStore } from './session.ts'
import { useWait } from './wait.ts'

const say = useSay()
const route = useRoute()
const router = useRouter()
const session = useSessionStore()
const { shop } = useShop()
const faces = useRead('faces')

const chosen = ref<Face>()
const pin = ref('')
const busy = ref(false)
const trouble = ref<Told>()
const field = ref<HTMLInputElement>()
const wait = useWait()
const back = computed(() => {
  const to = route.query['to']
  return typeof to === 'string' && to.startsWith('/') && !to.startsWith('//') ? to : '/counter'
})

async function choose(face: Face) {
  chosen.value = face
  pin.value = ''
  trouble.value = undefined
  await nextTick()
  field.value?.focus()
}

async function signIn() {
  if (chosen.value === undefined || busy.value || wait.seconds.value > 0) return
  busy.value = true
  try {
    const answer = await call('sessionBegin', { body: { person: chosen.value.id, pin: pin.value } })
    if (answer.person !== null) await enter(answer.person)
  } catch (error) {
    trouble.value = troubleOf(error)
    wait.begin(trouble.value.waitSeconds ?? 0)
    pin.value = ''
    await nextTick()
    field.value?.focus()
  } finally {
    busy.value = false
  }
}
async function enter(person: Face) {
  session.begun(person)
  await router.replace(back.value)
}

watch(
  () => faces.data.value,
  (list) => {
    if (list?.length === 1 && list[0] !== undefined) void choose(list[0])
  },
)
</script>

<template>
  <div class="page">
    <header class="mark"><i aria-hidden="true" />{{ say('app.name') }}</header>
    <main>
      <FoundShop v-if="shop?.empty === true" @founded="enter" />
      <template v-else>
        <p class="dim place">{{ shop === undefined ? '' : `${shop.name}, ${shop.place}` }}</p>
        <h1>{{ say('sign-in.title') }}</h1>
        <p v-if="session.person" class="lede">
          {{ say('sign-in.hand-over', { name: session.person.name }) }}
          <router-link :to="back">{{ say('sign-in.back') }}</router-link>
        </p>
        <p v-else class="lede">{{ say('sign-in.lede') }}</p>
        <Resource v-slot="{ data }" :read="faces">
          <div class="faces" role="group" :aria-label="say('sign-in.people')">
            <button
              v-for="face in data"
              :key="face.id"
              type="button"
              class="face"
              :aria-pressed="chosen?.id === face.id"
              @click="choose(face)"
            >
              <span class="initials mono" aria-hidden="true">{{ face.initials }}</span>
              <span>
                <b>{{ face.name }}</b>
                <span class="small dim">{{ say(`role.${face.role}`) }}</span>
              </span>
            </button>
          </div>
        </Resource>
        <form v-if="chosen" class="pin" @submit.prevent="signIn">
          <label for="pin">{{ say('sign-in.pin', { name: chosen.name }) }}</label>
          <div class="row">
            <input
              id="pin"
              ref="field"
              v-model="pin"
              class="mono"
              type="password"
              inputmode="numeric"
              autocomplete="off"
              maxlength="8"
            />
            <v-btn type="submit" :disabled="pin.length < 4 || busy || wait.seconds.value > 0">
              {{ say('sign-in.go') }}<kbd>Enter</kbd>
            </v-btn>
            <span v-if="wait.seconds.value > 0" class="mono" role="status">
              {{ say('sign-in.wait', { seconds: wait.seconds.value }) }}
            </span>
          </div>
          <Trouble v-if="trouble" :trouble="trouble" quiet />
        </form>
      </template>
    </main>
    <div class="ledge" aria-hidden="true" />
  </div>
</template>

<style scoped>
.page {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: 44px 1fr 92px;
  background: var(--desk);
}
.mark {
  display: flex;
  gap: 9px;
  align-items: center;
  padding: 0 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
  font-weight: 700;
  font-size: 16px;
}
.mark i {
  width: 18px;
  height: 14px;
  background: #25323a;
  outline: 1px solid var(--rule);
  box-shadow: 0 3px 0 -1px var(--wood);
}
main {
  width: min(776px, 100%);
  justify-self: center;
  background: var(--sheet);
  border: solid var(--rule);
  border-width: 0 1px;
  padding: 64px 56px;
}
.place {
  margin: 0 0 6px;
}
h1 {
  font-size: 36px;
}
.faces {
  display: grid;
  grid-template-columns: 1fr 1fr;
  border-top: 1px solid var(--rule);
}
.face {
  display: grid;
  grid-template-columns: 46px 1fr;
  align-items: center;
  gap: 12px;
  padding: 12px 10px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  color: var(--ink);
  font: inherit;
  font-size: 17px;
  text-align: left;
  cursor: pointer;
}
.face .small {
  display: block;
}
.face:hover {
  background: var(--raised);
}
.face[aria-pressed='true'] {
  background: var(--raised);
  box-shadow: inset 5px 0 0 var(--board);
}
.initials {
  display: grid;
  place-items: center;
  height: 40px;
  margin-left: 6px;
  background: var(--board);
  color: var(--chalk);
  border-radius: 3px;
  font-weight: 600;
}
.pin {
  margin-top: 22px;
}
.pin label {
  display: block;
  font-weight: 600;
  margin-bottom: 4px;
}
#pin {
  width: 190px;
  height: 44px;
  padding: 0 12px;
  border: 2px solid var(--line);
  border-radius: 3px;
  background: var(--field);
  color: var(--ink);
  font-size: 24px;
  letter-spacing: 0.3em;
}
.v-btn {
  height: 44px !important;
}
.ledge {
  background: #25323a;
  border-top: 4px solid var(--wood);
}
@media (max-width: 700px) {
  main {
    padding: 24px 14px;
  }
  .faces {
    grid-template-columns: 1fr;
  }
}
</style>
