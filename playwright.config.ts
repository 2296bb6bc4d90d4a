import { defineConfig } from '@playwright/test'
import { findChromium, noChromium } from './scripts/chromium.mjs'

const chromium = findChromium()
if (!chromium) throw new Error(noChromium)

export default defineConfig({
  testDir: 'e2e',
  fullyParallel: true,
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: {
    testIdAttribute: 'data-test',
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
