/** The shelf is what most visits begin with: it is asked for while the page's own code is still on its way. */
export default defineNuxtPlugin({
  name: 'shelf-early',
  setup() {
    if (window.location.pathname === '/')
      useShelfStore()
        .load()
        .catch(() => undefined)
  },
})
