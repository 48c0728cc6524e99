<script lang="ts">
/** The families' own short list, beside each of them. */
</script>

<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const route = useRoute()
const families = useRead('families')
</script>

<template>
  <ul class="short-list" :aria-label="say('families.link')">
    <li
      v-for="one in families.data.value"
      :key="one.id"
      :class="{ on: route.params['id'] === one.id }"
    >
      <router-link
        :to="`/house/families/${one.id}`"
        :aria-current="route.params['id'] === one.id ? 'page' : undefined"
      >
        <span>{{ one.maker }}</span>
        <span class="mono">{{ one.slips }}</span>
      </router-link>
    </li>
  </ul>
</template>
