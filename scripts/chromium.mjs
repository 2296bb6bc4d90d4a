/** Where a Chromium is: the one named by PLAYWRIGHT_CHROMIUM, or one at the usual places of Linux and macOS. */
import { existsSync } from 'node:fs'
import { delimiter, join } from 'node:path'

const names = ['chromium', 'chromium-browser']
const places = [
  '/usr/bin',
  '/usr/local/bin',
  '/snap/bin',
  '/opt/homebrew/bin',
  ...(process.env.PATH ?? '').split(delimiter),
]
const application = '/Applications/Chromium.app/Contents/MacOS/Chromium'

/**
 * The path of a Chromium, or null where there is none.
 * @returns {string | null}
 */
export function findChromium() {
  const named = process.env.PLAYWRIGHT_CHROMIUM
  if (named) return existsSync(named) ? named : null
  return [...places.flatMap(place => names.map(name => join(place, name))), application].find(existsSync) ?? null
}

export const noChromium =
  'The end-to-end tests need a Chromium and found none: install one (on Debian “apt-get install chromium”), ' +
  'or say where it is with PLAYWRIGHT_CHROMIUM=/path/to/it.'
