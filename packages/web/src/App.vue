<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { useBrowserStore } from './base/browser.ts'
import Frame from './frame/Frame.vue'
import { useSessionStore } from './people/session.ts'
import { hearNews } from './server/news.ts'
import type { Word } from './server/news.ts'
import { renew } from './server/query.ts'

const session = useSessionStore()
const browser = useBrowserStore()
const client = useQueryClient()
const route = useRoute()
const router = useRouter()
const theme = useTheme()

watchEffect(() => theme.change(browser.theme))
watchEffect(
  () => (document.documentElement.lang = browser.language === 'pseudo' ? 'en-XA' : 'en-GB'),
)

/** News live as long as somebody is signed in here. */
watch(
  () => session.person?.id,
  (id, _before, onCleanup) => {
    if (id === undefined) return
    const ending = new AbortController()
    onCleanup(() => ending.abort())
    hearNews(hear, ending.signal)
  },
  { immediate: true },
)

function hear(word: Word) {
  if (word.kind === 'news') renew(client, word.news.topic)
  if (word.kind === 'reset') void client.invalidateQueries()
  if (word.kind === 'online') session.online = word.online
  if (word.kind === 'signed-off' || (word.kind === 'news' && word.news.topic === 'session'))
    session.ask().catch(() => undefined)
}

/** Whoever is signed off while a page is open goes to sign in, and back here after. */
watch(
  () => session.person,
  (person) => {
    if (person !== null || route.meta.open === true) return
    void router.push({ path: '/sign-in', query: { to: route.fullPath } })
  },
)
</script>

<template>
  <v-app>
    <router-view v-if="route.meta.open === true" />
    <Frame v-else-if="session.person !== null" />
  </v-app>
</template>
