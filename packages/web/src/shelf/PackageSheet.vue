<script lang="ts">
/** One package: each claim that is made of it, beside what its bytes say. */
</script>

<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Answer } from '../server/call.ts'
import Resource from '../parts/Resource.vue'
import { useSay } from '../said.ts'
import { useRead } from '../server/query.ts'

type Package = Answer<'shelfPackage'>
type Claim = Package['claims'][number]

const say = useSay()
const route = useRoute()
const id = computed(() => String(route.params['package'] ?? ''))
const pack = useRead('shelfPackage', () => ({ params: { id: id.value } }))

const words = ({ claim, file, partition }: Claim) =>
  claim === 'image'
    ? say('package.claim.image', { partition: partition ?? '' })
    : say(`package.claim.${claim}`, { file })
</script>

<template>
  <p class="no-print">
    <router-link to="/shelf">{{ say('package.back') }}</router-link>
  </p>
  <Resource v-slot="{ data }" :read="pack">
    <h1>
      {{ say('package.title', { title: data.title, state: say(`package.state.${data.state}`) }) }}
    </h1>
    <p class="lede">
      {{
        say('package.lede', {
          kind: data.kind,
          release: data.release,
          date: data.patchDate,
          models: data.models.join(', '),
          boards: data.boards.join(', '),
        })
      }}
    </p>
    <h2 id="claims">{{ say('package.claims') }}</h2>
    <ul aria-labelledby="claims">
      <li v-for="(claim, at) in data.claims" :key="at">
        <b>{{ words(claim) }}</b> <span :class="claim.held">{{ say(`held.${claim.held}`) }}</span>
        <span v-if="claim.found" class="mono small sum">{{
          say('package.found', { found: claim.found })
        }}</span>
        <span v-if="claim.wanted && claim.held !== 'holds'" class="mono small sum">{{
          say('package.wanted', { wanted: claim.wanted })
        }}</span>
      </li>
    </ul>
  </Resource>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.holds {
  color: var(--lichen);
}
.missing {
  color: var(--ochre);
}
.contradicted {
  color: var(--brick);
  font-weight: 600;
}
.sum {
  display: block;
  overflow-wrap: anywhere;
}
</style>
