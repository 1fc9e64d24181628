import { defineConfig } from 'vitest/config'

/** Two projects: units stand beside their code; `tests/` drives whole processes and a browser. */
export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          testTimeout: 30_000,
          include: ['{core,database,engine,server,shared,world,demo,app,bin}/**/*.test.ts'],
        },
      },
      {
        test: {
          name: 'whole',
          include: ['tests/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
    ],
  },
})
