import { fileURLToPath } from 'node:url'
import Unimport from 'unimport/unplugin'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/**
 * Three projects: units stand beside their code; those of the pages' stores and composables get their
 * names as Nuxt gives them; `tests/` drives whole processes and a browser.
 */
export default defineConfig({
  test: {
    // One for each of the two processors that are promised.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'unit',
          // Far more than any needs: it ends what hangs, also on a machine ten times as slow.
          testTimeout: 300_000,
          // They keep nothing between files, and reading the same modules anew for each takes longer than they do.
          isolate: false,
          include: ['{core,database,cases,engine,server,shared,world,demo,bin}/**/*.test.ts'],
          setupFiles: './tests/seed.ts',
        },
      },
      {
        plugins: [
          Unimport.vite({
            presets: ['vue', 'pinia'],
            dirs: [at('./app/composables'), at('./app/stores')],
            dts: false,
          }),
        ],
        resolve: { alias: { '~~': at('./'), '~': at('./app') } },
        test: {
          ...{ name: 'app', testTimeout: 300_000, include: ['app/**/*.test.ts'] },
          setupFiles: './tests/seed.ts',
        },
      },
      {
        test: {
          name: 'whole',
          include: ['tests/**/*.test.ts'],
          globalSetup: './tests/demos.ts',
          setupFiles: './tests/begin.ts',
          isolate: false,
          // One after the other: each is a browser and three processes.
          fileParallelism: false,
          sequence: { groupOrder: 1 },
          testTimeout: 900_000,
          hookTimeout: 900_000,
          // A browser on a busy machine; what needed its second try is named at the end of the run.
          retry: 1,
        },
      },
    ],
  },
})
