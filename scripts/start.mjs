import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, root, startServer } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
const dataFolder = process.env.JOLLY_GRAM_DATA ?? join(root, '.data/own')
const { address } = await startServer({ dataFolder, port: process.env.PORT ?? 4250 })
console.log(`Jolly Gram is at ${address} (data in ${dataFolder})`)
