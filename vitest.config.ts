import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'unit', include: ['tests/unit/**/*.test.ts'], environment: 'node', testTimeout: 60_000 } },
      { test: { name: 'server', include: ['tests/server/**/*.test.ts'], environment: 'node', testTimeout: 120_000, hookTimeout: 180_000, fileParallelism: false } },
    ],
  },
})
