import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'e2e',
  // What hangs ends; what is slow on a busy machine does not.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: false,
  retries: 0,
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--headless',
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
})
