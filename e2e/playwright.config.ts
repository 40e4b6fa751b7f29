import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  globalSetup: './global-setup.ts',
  // The longest takes a minute and a half; on a machine that is shared it has taken more than five.
  timeout: 900_000,
  // A machine that is shared stands still for seconds at a time.
  expect: { timeout: 120_000 },
  workers: 1,
  retries: 0,
  outputDir: '../test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    // A trace keeps every picture of every page that it sees: with it the same tests take five times as long.
    trace: 'off',
    screenshot: 'only-on-failure',
    acceptDownloads: true,
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
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
});
