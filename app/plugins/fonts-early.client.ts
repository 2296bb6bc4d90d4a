/**
 * The letters are made ready while the page is still being put together: the first picture is then set in them at once,
 * instead of in others that are looked for on the device and put aside a moment later.
 */
const letters = ['16px "Instrument Sans Variable"', '16px "Fraunces Variable"', '500 16px "Spline Sans Mono"'] as const

export default defineNuxtPlugin({
  name: 'fonts-early',
  setup() {
    for (const font of letters) document.fonts.load(font).catch(() => undefined)
  },
})
