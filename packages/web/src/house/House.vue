<script lang="ts">
/** The House: people, who may do what, and what this browser remembers. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import { reaches } from '@plain-slate/core'
import { computed } from 'vue'
import { THEMES, useBrowserStore } from '../base/browser.ts'
import Resource from '../parts/Resource.vue'
import { useSessionStore } from '../people/session.ts'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'
import AddPerson from './AddPerson.vue'
import HouseBench from './HouseBench.vue'
import HouseCopies from './HouseCopies.vue'
import HouseRules from './HouseRules.vue'
import HouseTokens from './HouseTokens.vue'
import PersonRow from './PersonRow.vue'

const say = useSay()
const browser = useBrowserStore()
const session = useSessionStore()
const people = useRead('people')
const isLead = computed(() => reaches(session.person?.role, 'lead'))
</script>

<template>
  <Resource v-slot="{ data }" :read="people">
    <h1>{{ say('house.title', { n: data.filter((person) => person.active).length }) }}</h1>
    <p class="lede">{{ say('house.lede') }}</p>
    <h2 id="people">{{ say('house.people') }}</h2>
    <Columns
      by="people"
      :columns="[
        say('house.name'),
        say('house.role'),
        say('house.presence'),
        ...(isLead ? [say('house.act')] : []),
      ]"
    >
      <PersonRow v-for="person in data" :key="person.id" :person="person" :may-change="isLead" />
    </Columns>
    <AddPerson v-if="isLead" />
  </Resource>
  <h2>
    {{ say('families.link') }} <small>{{ say('families.link.small') }}</small>
  </h2>
  <p>
    <router-link to="/house/families">{{ say('families.link') }}</router-link>
  </p>
  <HouseTokens />
  <HouseBench />
  <HouseCopies />
  <HouseRules />
  <h2>{{ say('house.browser') }}</h2>
  <fieldset>
    <legend>{{ say('theme.label') }}</legend>
    <label v-for="theme in THEMES" :key="theme">
      <input v-model="browser.theme" type="radio" name="theme" :value="theme" />
      {{ say(`theme.${theme}`) }}
    </label>
  </fieldset>
  <label class="switch">
    <input v-model="browser.shortcuts" type="checkbox" />
    <span>
      {{ say('house.shortcuts') }}
      <span class="dim small">{{ say('house.shortcuts.hint') }}</span>
    </span>
  </label>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 8px;
  display: flex;
  gap: 18px;
}
legend {
  float: left;
  margin-right: 18px;
  color: var(--ink-2);
}
.switch {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.switch .small {
  display: block;
}
input {
  accent-color: var(--sky);
}
</style>
