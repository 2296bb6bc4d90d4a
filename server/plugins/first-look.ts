import { extname } from 'node:path'
import shelfFiles from '#shelf-files'

const kinds: Readonly<Record<string, string>> = {
  '.js': 'rel="modulepreload" as="script"',
  '.css': 'rel="preload" as="style"',
  '.woff2': 'rel="preload" as="font" type="font/woff2"',
}
const linkTo = (file: string) => `<link ${kinds[extname(file)]} crossorigin href="/_nuxt/${file}">`
const isFont = (file: string) => file.endsWith('.woff2')

/** What the shelf needs besides the first script is asked for together with it: most visits begin there. */
const shelfLinks = [
  ...shelfFiles.filter(file => !isFont(file)).map(linkTo),
  '<link rel="preload" as="fetch" crossorigin href="/api/builds">',
  ...shelfFiles.filter(isFont).map(linkTo),
].join('')

/** Data for the page’s scripts, in a form that nothing in them can end. */
const dataFor = (id: string, data: unknown) =>
  `<script type="application/json" id="${id}">${JSON.stringify(data).replaceAll('<', '\\u003c')}</script>`

/** What a page is told of the data it shows. */
async function knownNow() {
  try {
    const app = await useApplication()
    return { data: app.identity(), settings: app.settings.load() }
  } catch {
    return { data: '', settings: null }
  }
}

/**
 * A page comes in the look that was chosen and with the settings, so that it changes neither colour nor the way figures
 * are written once its scripts have run; without a class it follows the system. Where the settings cannot be read the
 * page itself says so.
 */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:html', async (html, { event }) => {
    if (!import.meta.dev && event.path === '/') html.head.push(shelfLinks)
    const { data, settings } = await knownNow()
    // What is typed on this page is typed on these data.
    html.head.push(`<meta name="jolly-gram-data" content="${data}">`)
    if (!settings) return
    html.head.push(dataFor('settings-with-page', settings))
    if (settings.theme !== 'system') html.htmlAttrs.push(`class="${settings.theme}"`)
  })
})
