import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

/** Two rooms: pure tests, and those that want the private PostgreSQL. */
export default defineConfig({
  test: {
    projects: [
      {
        plugins: [vue()],
        test: {
          name: 'unit',
          include: ['packages/{core,texts,api,web,cli}/src/**/*.test.ts', 'scripts/**/*.test.ts', 'demo/src/**/*.test.ts'],
          setupFiles: ['scripts/test/fixed-seed.ts'],
        },
      },
      {
        test: {
          name: 'server',
          include: ['packages/server/src/**/*.test.ts'],
          globalSetup: ['scripts/test/vitest-setup.ts'],
          testTimeout: 20_000,
        },
      },
    ],
  },
})
