import { resolve } from 'node:path';
import { defineConfig } from '@playwright/test';
import { BASE_URL, OUTSIDE_URL, PORT } from './world.js';

/**
 * Journeys share one freshly loaded demo and run one after another, as a morning would; beside them run those that open
 * houses of their own. Then every screen is looked at as they have left it, two at a time, also where a journey has failed.
 */
export default defineConfig({
  fullyParallel: false,
  workers: 2,
  retries: 0,
  // Bounds for a machine that has much else to do: nothing here says how fast anything is.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  outputDir: '../.cache/e2e-results',
  reporter: [['list'], ['json']],
  use: {
    baseURL: BASE_URL,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking'],
    },
  },
  projects: [
    { name: 'journeys', testDir: 'journeys', workers: 1, teardown: 'sweep' },
    { name: 'houses', testDir: 'houses', workers: 1 },
    { name: 'sweep', testDir: 'sweep', fullyParallel: true },
  ],
  webServer: {
    command: 'node ../scripts/demo.mjs --fresh',
    url: `${BASE_URL}/api/sign-in-page`,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    env: {
      VECTRUM_DEMO_DATA: resolve(import.meta.dirname, '../.cache/e2e-demo'),
      VECTRUM_PORT: String(PORT),
      VECTRUM_HOST: '127.0.0.1',
      OUTSIDE_PORT: new URL(OUTSIDE_URL).port,
      LOG_LEVEL: 'error',
    },
  },
});
