<script setup lang="ts">
import { useSay } from '../base/said.ts'

const say = useSay()
</script>

<template>
  <h1>{{ say('state.unknown-page') }}</h1>
  <p class="lede">{{ say('state.unknown-page.lede') }}</p>
</template>
