import { availableParallelism } from 'node:os';
import { defaultClientConditions, defaultServerConditions } from 'vite';
import { defineConfig } from 'vitest/config';

const ours = '@coomb/source';
const shared = {
  resolve: { conditions: [ours, ...defaultClientConditions] },
  ssr: { resolve: { conditions: [ours, ...defaultServerConditions], externalConditions: [ours] } },
  oxc: { decorator: { legacy: true } },
} as const;

export default defineConfig({
  test: {
    // One fewer than there are processors is usual: one alone, where there are two.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    projects: [
      {
        ...shared,
        test: {
          name: 'unit',
          isolate: false,
          include: ['packages/*/src/**/*.test.ts', 'demo/src/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 90_000,
        },
      },
      {
        ...shared,
        test: {
          name: 'web',
          environment: 'jsdom',
          isolate: false,
          setupFiles: ['apps/web/src/testing/browser.ts'],
          include: ['apps/web/src/**/*.test.{ts,tsx}'],
          testTimeout: 60_000,
        },
      },
      {
        // Our own packages as they are built: read by Node itself, which takes half the time of having them made anew for each file.
        oxc: shared.oxc,
        test: {
          name: 'server',
          // One process after the other would read the framework, and compile the database, anew: each file starts servers of its own instead.
          isolate: false,
          server: { deps: { external: [/\/(?:packages\/[^/]+|demo)\/dist\//] } },
          include: ['apps/server/src/**/*.test.ts'],
          globalSetup: ['apps/server/src/testing/make-template.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        ...shared,
        test: {
          name: 'e2e',
          include: ['e2e/src/**/*.test.ts'],
          testTimeout: 300_000,
          hookTimeout: 300_000,
          // One browser at a time, and nothing beside it.
          fileParallelism: false,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});
