import type { Settings } from '../../shared/settings'

/**
 * A page comes in the look that was chosen, so that it does not change colour once its scripts have run; without a class
 * it follows the system. Where the settings cannot be read the page itself says so.
 */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:html', async html => {
    const theme: Settings['theme'] = await useApplication().then(
      app => app.settings.load().theme,
      () => 'system',
    )
    if (theme !== 'system') html.htmlAttrs.push(`class="${theme}"`)
  })
})
