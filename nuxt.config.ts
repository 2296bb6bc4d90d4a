import { fileURLToPath } from 'node:url'

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', '@vueuse/nuxt', '@nuxt/eslint', 'nuxt-auth-utils'],
  ssr: false,
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: { head: {
    title: 'Jolly Gram',
    htmlAttrs: { lang: 'en' },
    meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }, { name: 'color-scheme', content: 'light dark' }],
    link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
  } },
  css: [
    '@fontsource-variable/fraunces', '@fontsource-variable/instrument-sans', '@fontsource/spline-sans-mono/500.css',
    'element-plus/theme-chalk/dark/css-vars.css',
    '~/assets/theme.css', '~/assets/layout.css', '~/assets/print.css',
  ],
  // The network at home speaks plain http, where a cookie marked as secure would never be kept.
  runtimeConfig: { session: { name: 'jolly-gram', maxAge: 60 * 60 * 24 * 30, password: '', cookie: { sameSite: 'strict', httpOnly: true, secure: false } } },
  alias: { '#core': fileURLToPath(new URL('./core', import.meta.url)) },
  experimental: { appManifest: false },
  compatibilityDate: '2026-03-01',
  nitro: {
    errorHandler: './server/error-handler.ts',
    serverAssets: [{ baseName: 'migrations', dir: './db/migrations' }],
    // Bundled, so that the server starts without looking up hundreds of small files.
    externals: { inline: ['zod'] },
    esbuild: { options: { target: 'node20' } },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  hooks: {
    // Reports are worked out by a thread of their own: its script lies beside the server.
    'nitro:init'(nitro) {
      nitro.hooks.hook('compiled', async () => {
        if (nitro.options.dev) return
        const { build } = await import('esbuild')
        const entry = fileURLToPath(new URL('./server/workers/report.ts', import.meta.url))
        await build({ entryPoints: [entry], outfile: `${nitro.options.output.serverDir}/workers/report.mjs`, bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'warning' })
      })
    },
  },
  auth: { loadStrategy: 'none' },
  elementPlus: { importStyle: 'css' },
  eslint: { config: { stylistic: { indent: 2, braceStyle: 'stroustrup' } } },
})
