<script lang="ts">
/** Said large while of what is in doubt there is one copy: nothing may restart or lose its power. */
</script>

<script setup lang="ts">
import { useSay } from '../base/said.ts'

defineProps<{ part: string }>()
const say = useSay()
</script>

<template>
  <div class="hold" role="alert">
    <strong>{{ say('hold.title') }}</strong>
    <p>{{ part === 'lock' ? say('hold.lock') : say('hold.says', { part }) }}</p>
    <p>{{ say('hold.do') }}</p>
  </div>
</template>

<style scoped>
.hold {
  border-left: 10px solid var(--brick);
  padding: 6px 16px;
  margin: 10px 0;
}
strong {
  display: block;
  font-size: 30px;
  line-height: 1.2;
}
p {
  margin: 6px 0 0;
  font-size: 17px;
}
</style>
