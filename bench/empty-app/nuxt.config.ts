export default defineNuxtConfig({
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  compatibilityDate: '2026-03-01',
})
