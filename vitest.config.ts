import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { TouchedFirst } from './scripts/test/touched-first.ts'

/** Three rooms: pure tests, those that want the private PostgreSQL, those that run the start command. */
export default defineConfig({
  test: {
    sequence: { sequencer: TouchedFirst },
    projects: [
      {
        plugins: [vue()],
        test: {
          name: 'unit',
          include: [
            'packages/{core,texts,api,web,cli,archives,vault,link,agent,standins}/src/**/*.test.ts',
            'e2e/{agrees,link,tables}/**/*.test.ts',
            'scripts/**/*.test.ts',
            'demo/src/**/*.test.ts',
          ],
          setupFiles: ['scripts/test/fixed-seed.ts'],
          testTimeout: 30_000,
          /* Pure tests share their modules: nothing here keeps state that another could see. */
          isolate: false,
          /* Beside the shops of the server a second one only makes both slower. */
          maxWorkers: 1,
        },
      },
      {
        test: {
          name: 'start',
          include: ['e2e/start/**/*.run.ts'],
          testTimeout: 300_000,
          hookTimeout: 120_000,
          /* Each has a room of its own, and waits more than it works. */
          maxWorkers: 2,
        },
      },
      {
        test: {
          name: 'server',
          include: [
            'packages/server/src/**/*.test.ts',
            'e2e/{bench,faults,jobs,laws}/**/*.test.ts',
          ],
          globalSetup: ['scripts/test/vitest-setup.ts'],
          /* Each file has a database and a server of its own; the modules may be shared. */
          isolate: false,
          /* Three on two cores: shops often wait, for a lease that lapses or a device that restarts. */
          maxWorkers: 3,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
})
