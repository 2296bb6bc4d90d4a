import { settingsSchema } from '../../shared/schemas/settings'
import { defaultSettings, type Settings } from '../../shared/settings'
import type { Db } from './open-database'

/** SQL of the settings: one row. */
export function settingsRepository(db: Db) {
  const select = db.prepare('SELECT value FROM settings WHERE id = 1').pluck()
  const put = db.prepare(
    'INSERT INTO settings (id, value) VALUES (1, :value) ON CONFLICT (id) DO UPDATE SET value = excluded.value',
  )
  return {
    load(): Settings {
      const text = select.get() as string | undefined
      return text ? settingsSchema.parse({ ...defaultSettings, ...JSON.parse(text) }) : defaultSettings
    },
    save: (settings: Settings) => {
      put.run({ value: JSON.stringify(settings) })
    },
  }
}
