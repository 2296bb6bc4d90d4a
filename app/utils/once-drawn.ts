/** The longest that is waited for a picture, ms: a page that is not shown draws none. Our choice. */
const longestMs = 1000

/** Does it once the first page has been drawn: what only comes later does not hold that picture up. */
export function onceDrawn(act: () => void) {
  onNuxtReady(() => {
    let done = false
    const take = () => {
      if (done) return
      done = true
      performance.mark('first page drawn')
      act()
    }
    requestAnimationFrame(() => setTimeout(take))
    setTimeout(take, longestMs)
  })
}

/** Does it when the browser has nothing else to do, at the latest after so long, ms. Not every browser says when it has. */
export function whenIdle(act: () => void, atLatestMs: number) {
  if ('requestIdleCallback' in window) window.requestIdleCallback(() => act(), { timeout: atLatestMs })
  else setTimeout(act, 50)
}
