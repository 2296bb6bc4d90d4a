/** How long after a start the first copy is looked after, and how often from then on, ms. Our choice. */
const [firstMs, everyMs] = [60_000, 3_600_000]

/** A copy of everything is made once a day, while the application runs, unless Settings say otherwise. */
export default defineNitroPlugin(nitro => {
  async function look() {
    try {
      const app = await useApplication()
      if (!app.settings.load().automaticCopies) return
      await app.archive.makeCopyIfDue()
      const failure = app.archive.lastFailure()
      if (failure) console.error(`No copy was made: ${failure.words}`)
    } catch (error) {
      console.error(`No copy was made: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  const first = setTimeout(() => void look(), firstMs).unref()
  const later = setInterval(() => void look(), everyMs).unref()
  nitro.hooks.hook('close', () => {
    clearTimeout(first)
    clearInterval(later)
  })
})
