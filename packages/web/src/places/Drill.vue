<script setup lang="ts">
import { useSay } from '../base/said.ts'

const say = useSay()
</script>

<template>
  <h1>{{ say('drill.title') }}</h1>
  <p class="lede">{{ say('drill.lede') }}</p>
</template>
