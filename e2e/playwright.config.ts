import { defineConfig } from '@playwright/test'

/** Chromium as Debian ships it; three workers, since tests mostly wait; each with a server of its own. */
export default defineConfig({
  testDir: './tests',
  outputDir: './results',
  workers: 3,
  fullyParallel: true,
  /* A busy machine gets one more try; the test command names whoever needed it. */
  retries: 1,
  timeout: 240_000,
  expect: { timeout: 15_000 },
  globalSetup: './setup.ts',
  reporter: [['line'], ['json', { outputFile: './results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-gpu',
      ],
    },
  },
})
