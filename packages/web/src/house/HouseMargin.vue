<script lang="ts">
/** Beside the House: every route with the least role it needs, and the contract to read. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import { ref } from 'vue'
import { contract } from '@plain-slate/api'
import Margin from '../parts/Margin.vue'
import Resource from '../parts/Resource.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const rights = useRead('rights')
const all = ref(false)
/** Enough to see what it is about. */
const SHOWN = 8
const needs = (need: string) =>
  need === 'nobody' ? say('house.rights.nobody') : say(`role.${need as 'lead'}`)
</script>

<template>
  <Margin :title="say('house.rights')">
    <p class="dim">{{ say('house.rights.small') }}</p>
    <Resource v-slot="{ data }" :read="rights">
      <Columns
        :label="say('house.rights')"
        :columns="[say('house.rights.path'), say('house.rights.needs')]"
      >
        <tr v-for="one in all ? data : data.slice(0, SHOWN)" :key="`${one.method} ${one.path}`">
          <td>{{ one.summary }}</td>
          <td>{{ needs(one.needs) }}</td>
        </tr>
      </Columns>
      <button v-if="!all" type="button" class="act" @click="all = true">
        {{ say('house.rights.show', { n: data.length }) }}
      </button>
    </Resource>
    <p class="docs">
      <a :href="contract.docs.path" target="_blank">{{ say('house.contract') }}</a>
      <span class="dim">{{ say('house.contract.hint') }}</span>
    </p>
  </Margin>
</template>

<style scoped>
/* The table is its component's. */
:deep(table.rows) {
  font-size: 13px;
}
p {
  margin: 0 0 8px;
}
.docs {
  margin-top: 14px;
}
.docs span {
  display: block;
}
</style>
