<script lang="ts">
/** The families of devices that are known here: what each is, and a way to all it says. */
</script>

<script setup lang="ts">
import Columns from '../parts/Columns.vue'
import Resource from '../parts/Resource.vue'
import TakeFamily from './TakeFamily.vue'
import { useSay } from '../base/said.ts'
import { useRead } from '../server/query.ts'

const say = useSay()
const families = useRead('families')
</script>

<template>
  <Resource v-slot="{ data }" :read="families">
    <h1>{{ say('families.title', { n: data.length }) }}</h1>
    <p class="lede">{{ say('families.lede') }}</p>
    <Columns
      v-if="data.length > 0"
      :label="say('families.link')"
      :columns="[say('families.file'), say('families.models'), say('families.open')]"
    >
      <tr v-for="one in data" :key="one.id">
        <th scope="row">
          <router-link :to="`/house/families/${one.id}`">{{ one.maker }}, {{ one.id }}</router-link>
        </th>
        <td class="mono">{{ one.models.join(', ') }}</td>
        <td>{{ one.slips }}</td>
      </tr>
    </Columns>
    <TakeFamily />
  </Resource>
</template>
