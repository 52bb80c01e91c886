import { defineConfig } from '@playwright/test'
import { launchOptions } from './browser.mjs'
import { schools } from './schools'

/** The application is started by ./zeitplan test, on demo schools of its own whose today is 24 November 2026: one for each worker. */
export default defineConfig({
  testDir: 'journeys',
  // Generous, for small and busy machines; nothing here measures time.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  retries: 0,
  workers: Math.max(1, schools.length),
  fullyParallel: true,
  reporter: [['list']],
  use: {
    baseURL: process.env.ZEITPLAN_BASE ?? 'http://127.0.0.1:5080',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // What stands in for the network in a journey could not see what comes from the device; the hall's journeys allow it.
    serviceWorkers: 'block',
    launchOptions,
    trace: 'off',
  },
})
