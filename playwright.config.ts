import { defineConfig } from '@playwright/test';

/**
 * Debian's Chromium, driven over the real application with the demo's data; one worker, for the journeys share one
 * demo.
 */
export default defineConfig({
  testDir: 'e2e',
  outputDir: '.tmp/browser',
  workers: 1,
  // What changes projects has a demo of its own, so that the others find theirs as it was made.
  projects: [
    { name: 'changes', testMatch: /changes\.spec/ },
    { name: 'checks', testMatch: /checks\.spec/ },
    { name: 'journeys', testIgnore: /(?:changes|checks)\.spec/ },
  ],
  // A bound for what hangs, not a measure: the machine is shared.
  timeout: 150_000,
  expect: { timeout: 15_000 },
  reporter: [['line'], ['json', { outputFile: '.tmp/playwright.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    trace: 'retain-on-failure',
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
