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
