/** The page: its parts put together and mounted. */
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import './theme/look.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { z } from 'zod'
import App from './App.vue'
import { makeRouter } from './router.ts'
import { makeQueryClient } from './server/query.ts'
import { makeVuetify } from './theme/vuetify.ts'

/* The content policy allows no code made from text, which Zod would else use for speed. */
z.config({ jitless: true })

const nonce = document.querySelector<HTMLElement>('[nonce]')?.nonce

createApp(App)
  .use(createPinia())
  .use(VueQueryPlugin, { queryClient: makeQueryClient() })
  .use(makeRouter())
  .use(makeVuetify(nonce === '' ? undefined : nonce))
  .mount('#app')
