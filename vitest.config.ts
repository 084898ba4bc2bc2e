import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

// The application's own name for the project's folder.
const resolve = { alias: { '~~': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') } }

export default defineConfig({
  test: {
    projects: [
      {
        resolve,
        test: {
          name: 'unit',
          include: ['tests/unit/**/*.test.ts'],
          environment: 'node',
          testTimeout: 60_000,
          // All read the core and the faces: once for all files, which change nothing that the next one sees.
          // `npm run mutate` asks which tests reach what: then each file loads its own.
          isolate: Boolean(process.env.MORPHENE_REACH),
          setupFiles: process.env.MORPHENE_REACH ? ['tests/mutate/reach.ts'] : [],
        },
      },
      {
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          environment: 'node',
          testTimeout: 120_000,
          hookTimeout: 180_000,
          fileParallelism: false,
          // Files have databases and servers of their own; what they read is read once.
          isolate: false,
          globalSetup: ['tests/server/leave-clean.ts'],
        },
      },
    ],
  },
})
