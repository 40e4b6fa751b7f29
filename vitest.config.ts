import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'packages/*/src/**/*.test.ts',
            'apps/web/src/**/*.test.{ts,tsx}',
            'apps/cli/src/**/*.test.ts',
            'apps/standins/src/**/*.test.ts',
            'demo/**/*.test.ts',
            'scripts/**/*.test.ts',
          ],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          // What the core and the screens are made of is read once for a process.
          isolate: false,
          expect: { poll: { timeout: 20_000 } },
        },
      },
      // A database for each process: each file makes its own clients and users, and takes nothing for granted.
      {
        test: {
          name: 'api',
          include: ['apps/server/test/**/*.test.ts'],
          pool: 'forks',
          maxWorkers: 2,
          // What the server is made of is read once for a process and not once for each of its files: minutes of two cores.
          isolate: false,
          setupFiles: ['apps/server/test/slot.ts'],
          // Workers are killed and waited for; on a machine that is shared that has taken a minute.
          testTimeout: 150_000,
          hookTimeout: 120_000,
          globalSetup: ['apps/server/test/global-setup.ts'],
          expect: { poll: { timeout: 20_000 } },
        },
      },
    ],
  },
});
