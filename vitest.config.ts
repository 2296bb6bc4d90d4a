import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: {
    alias: {
      '~': fileURLToPath(new URL('./app', import.meta.url)),
      '#core': fileURLToPath(new URL('./core', import.meta.url)),
      '#shared': fileURLToPath(new URL('./shared', import.meta.url)),
    },
  },
  test: {
    include: [
      'core/**/*.test.ts',
      'shared/**/*.test.ts',
      'server/**/*.test.ts',
      'scripts/**/*.test.ts',
      'simulators/**/*.test.ts',
      'app/**/*.test.ts',
    ],
    environment: 'node',
    testTimeout: 60_000,
  },
})
