import { defineConfig } from '@playwright/test'

const LONG = /(marked|fourth|bench|walk|stages)\.spec\.ts/

/** Chromium as Debian ships it; three workers, since tests mostly wait; each with a server of its own. */
export default defineConfig({
  testDir: './tests',
  outputDir: './results',
  workers: 3,
  fullyParallel: true,
  /* A busy machine gets one more try; the test command names whoever needed it. */
  retries: 1,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  /* The long ones first, two at a time: each is a server, an agent and a bench of its own. */
  projects: [
    { name: 'whole shops', testMatch: LONG, workers: 2 },
    { name: 'pages', testIgnore: LONG },
  ],
  globalSetup: './setup.ts',
  reporter: [['line'], ['json', { outputFile: './results/report.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
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
