import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  html: { cspNonce: '%NONCE%' },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 900, manifest: true },
})
