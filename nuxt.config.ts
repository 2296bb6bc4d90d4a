import { fileURLToPath } from 'node:url'

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', '@vueuse/nuxt', '@nuxt/eslint'],
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  compatibilityDate: '2026-03-01',
  alias: { '#core': fileURLToPath(new URL('./core', import.meta.url)) },
  css: [
    '@fontsource-variable/fraunces', '@fontsource-variable/instrument-sans', '@fontsource/spline-sans-mono/500.css',
    'element-plus/theme-chalk/dark/css-vars.css',
    '~/assets/theme.css', '~/assets/layout.css', '~/assets/print.css',
  ],
  components: [{ path: '~/components', pathPrefix: false }],
  app: { head: {
    title: 'Jolly Gram',
    htmlAttrs: { lang: 'en' },
    meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }, { name: 'color-scheme', content: 'light dark' }],
    link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
  } },
  experimental: { appManifest: false },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  elementPlus: { importStyle: 'css' },
  nitro: {
    serverAssets: [{ baseName: 'migrations', dir: './db/migrations' }],
    esbuild: { options: { target: 'node20' } },
  },
  eslint: { config: { stylistic: { indent: 2, braceStyle: 'stroustrup' } } },
})
