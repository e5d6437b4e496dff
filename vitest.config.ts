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
    projects: [
      {
        ...shared,
        test: {
          name: 'unit',
          include: ['packages/*/src/**/*.test.ts', 'demo/src/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 90_000,
        },
      },
      {
        ...shared,
        test: {
          name: 'web',
          environment: 'jsdom',
          setupFiles: ['apps/web/src/testing/browser.ts'],
          include: ['apps/web/src/**/*.test.{ts,tsx}'],
          testTimeout: 60_000,
        },
      },
      {
        ...shared,
        test: {
          name: 'server',
          include: ['apps/server/src/**/*.test.ts'],
          globalSetup: ['apps/server/src/testing/make-template.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      { ...shared, test: { name: 'e2e', include: ['e2e/src/**/*.test.ts'], testTimeout: 300_000, hookTimeout: 300_000, fileParallelism: false } },
    ],
  },
});
