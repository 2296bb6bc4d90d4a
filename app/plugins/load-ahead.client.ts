/**
 * What the other pages need is loaded once the first one stands: they open although the server is away, and the first page
 * does not wait for them.
 */
export default defineNuxtPlugin({
  name: 'load-ahead',
  setup() {
    const router = useRouter()
    const atRest = () => new Promise<void>(done => whenIdle(done, 2000))
    async function loadAll() {
      await atRest()
      await import('~/assets/more-letters.css').catch(() => undefined)
      await Promise.allSettled(
        Object.values(
          import.meta.glob([
            '~/components/**/{BringInRows,BuildName,CardEditor,ConflictSheet,DeleteBuild,FindAnything,FirstTour,HandOver}.vue',
            '~/utils/{chart-file,show-message}.ts',
            '~/components/**/{ImportParts,KeptUndo,KeyList,KitSheet,StartBuild,UndoButton,WaitingEdits,WorkOut,WorkProgress}.vue',
          ]),
        ).map(load => load()),
      )
      for (const { path } of router.getRoutes()) {
        await atRest()
        await preloadRouteComponents(path.replaceAll(/:\w+(?:\(\))?/g, '-'), router).catch(() => undefined)
      }
      performance.mark('pages loaded ahead')
    }
    onceDrawn(() => {
      setTimeout(() => {
        void loadAll()
      }, 300)
    })
  },
})
