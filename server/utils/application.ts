import { join, resolve } from 'node:path'
import { makeApplication, type Application } from '../services/application'

let running: Promise<Application> | null = null

/** The application of this process, opened at the first use. `JOLLY_GRAM_DATA` names its data folder. */
export function useApplication(): Promise<Application> {
  running ??= open()
  return running
}

async function open(): Promise<Application> {
  const storage = useStorage('assets:migrations')
  const names = (await storage.getKeys()).filter(key => key.endsWith('.sql'))
  const migrations = await Promise.all(names.map(async name => ({ name, sql: String(await storage.getItem(name)) })))
  const folder = resolve(process.env.JOLLY_GRAM_DATA ?? '.data/own')
  return makeApplication(join(folder, 'jolly-gram.sqlite'), migrations)
}
