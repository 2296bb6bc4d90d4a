/** Loaded into a server under test: at SIGUSR2 it collects what is free and writes the heap in use to a file. */
import { writeFileSync } from 'node:fs'

process.on('SIGUSR2', () => {
  globalThis.gc?.()
  globalThis.gc?.()
  writeFileSync(process.env.HEAP_FILE, String(process.memoryUsage().heapUsed))
})
