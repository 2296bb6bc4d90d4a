import shelfFiles from '#shelf-files'
import type { Settings } from '../../shared/settings'

/** What the shelf needs besides the first script is asked for together with it: most visits begin there. */
const shelfLinks = [
  ...shelfFiles.map(file => {
    const kind = file.endsWith('.css') ? 'rel="preload" as="style"' : 'rel="modulepreload" as="script"'
    return `<link ${kind} crossorigin href="/_nuxt/${file}">`
  }),
  '<link rel="preload" as="fetch" crossorigin href="/api/builds">',
].join('')

/**
 * A page comes in the look that was chosen, so that it does not change colour once its scripts have run; without a class
 * it follows the system. Where the settings cannot be read the page itself says so.
 */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:html', async (html, { event }) => {
    if (!import.meta.dev && event.path === '/') html.head.push(shelfLinks)
    const { theme, data } = await useApplication().then(
      app => ({ theme: app.settings.load().theme, data: app.identity() }),
      (): { theme: Settings['theme']; data: string } => ({ theme: 'system', data: '' }),
    )
    // What is typed on this page is typed on these data.
    html.head.push(`<meta name="jolly-gram-data" content="${data}">`)
    if (theme !== 'system') html.htmlAttrs.push(`class="${theme}"`)
  })
})
