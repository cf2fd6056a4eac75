import { defineConfig } from '@playwright/test';

/** Debian's Chromium, driven over the real application with the demo's data. Each worker has a demo of its own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: '.tmp/browser',
  workers: 2,
  // On a shared machine a page may come late once; one that fails twice has failed. The report counts such tests apart.
  retries: 1,
  // What changes projects has a demo of its own, so that the others find theirs as it was made.
  projects: [
    { name: 'changes', testMatch: /changes\.spec/ },
    { name: 'checks', testMatch: /checks\.spec/ },
    { name: 'journeys', testIgnore: /(?:changes|checks)\.spec/ },
  ],
  // A bound for what hangs, not a measure: the machine is shared.
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: [['line'], ['json', { outputFile: '.tmp/playwright.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // A trace of every test costs a third of its time: NESTING_TRACE=1 keeps those of tests that fail.
    trace: process.env.NESTING_TRACE === '1' ? 'retain-on-failure' : 'off',
    actionTimeout: 45_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
