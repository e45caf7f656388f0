import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Nothing here asserts speed: a loaded machine may take its time.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // Each worker has an application of its own, so files run beside each other. Two keep two processors busy.
  workers: 2,
  fullyParallel: false,
  reporter: [['list']],
  outputDir: 'test-results',
  // What is bundled is translated already.
  build: { external: ['**/core/dist/**'] },
  use: {
    browserName: 'chromium',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    trace: 'off',
    video: 'off',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Pages live for seconds here: compiling their code to be quick takes a tenth of all work, and does not pay.
        '--js-flags=--no-opt,--no-maglev',
      ],
    },
  },
})
