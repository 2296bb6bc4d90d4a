/**
 * What the other pages need is loaded once the first one stands: they open although the server is away, and the first page
 * does not wait for them.
 */
export default defineNuxtPlugin({
  name: 'load-ahead',
  setup() {
    const router = useRouter()
    const whenIdle = () =>
      new Promise<void>(done => {
        // Not every browser says when it has nothing to do.
        if ('requestIdleCallback' in window) window.requestIdleCallback(() => done(), { timeout: 2000 })
        else setTimeout(done, 50)
      })
    async function loadAll() {
      await whenIdle()
      await Promise.allSettled(
        Object.values(
          import.meta.glob([
            '~/components/**/{BringInRows,BuildName,CardEditor,ConflictSheet,DeleteBuild,FindAnything,FirstTour,HandOver}.vue',
            '~/utils/{chart-file,show-message}.ts',
            '~/components/**/{ImportParts,KeptUndo,KeyList,KitSheet,StartBuild,UndoButton,WaitingEdits,WorkOut}.vue',
          ]),
        ).map(load => load()),
      )
      for (const { path } of router.getRoutes()) {
        await whenIdle()
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
