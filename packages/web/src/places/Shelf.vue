<script setup lang="ts">
import { useSay } from '../said.ts'

const say = useSay()
</script>

<template>
  <h1>{{ say('shelf.title') }}</h1>
  <p class="lede">{{ say('shelf.lede') }}</p>
</template>
