import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { chunksByPage, filesOfShelf, keepThoseOfEveryPage, type Chunks } from './scripts/bundle/page-files'

function migrations() {
  const folder = new URL('./server/db/migrations/', import.meta.url)
  return readdirSync(folder)
    .filter(name => name.endsWith('.sql'))
    .map(name => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))
}

/** What the shelf’s page needs beyond the first script and style: asked for together with them. */
let shelfFiles: readonly string[] = []

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', '@vueuse/nuxt', '@nuxt/eslint', 'nuxt-auth-utils'],
  $production: {
    nitro: {
      // Every start reads all of it: of half the size it is read in half the time. Names are kept.
      minify: true,
      // A telephone at the end of the garden has a third to wait for.
      compressPublicAssets: { gzip: true, brotli: false },
      // No route gives a web response: the first answer need not load what would be one to find that out.
      replace: { 'typeof Response': '"undefined"' },
    },
  },
  ssr: false,
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Jolly Gram',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1, viewport-fit=cover' },
        { name: 'color-scheme', content: 'light dark' },
      ],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' },
        { rel: 'apple-touch-icon', href: '/apple-touch-icon.png' },
        // Behind a passphrase it is only given to who is signed in.
        { rel: 'manifest', href: '/manifest.webmanifest', crossorigin: 'use-credentials' },
      ],
    },
  },
  css: [
    '~/assets/letters.css',
    'element-plus/theme-chalk/dark/css-vars.css',
    '~/assets/theme.css',
    '~/assets/controls.css',
    '~/assets/layout.css',
    '~/assets/print.css',
  ],
  // The network at home speaks plain http, where a cookie marked as secure would never be kept.
  runtimeConfig: {
    session: {
      name: 'jolly-gram',
      maxAge: 60 * 60 * 24 * 30,
      password: '',
      cookie: { sameSite: 'strict', httpOnly: true, secure: false },
    },
  },
  alias: { '#core': fileURLToPath(new URL('./core', import.meta.url)) },
  experimental: { appManifest: false },
  compatibilityDate: '2026-03-01',
  nitro: {
    errorHandler: './server/error-handler.ts',
    // The changes of the database’s schema, all in one: each a file of its own would be looked up at every start.
    virtual: {
      '#migrations': () => `export default ${JSON.stringify(migrations())}`,
      '#shelf-files': () => `export default ${JSON.stringify(shelfFiles)}`,
    },
    // Bundled, so that the server starts without looking up hundreds of small files.
    externals: { inline: ['zod', 'dayjs', '@vue', 'unhead', 'vue-bundle-renderer', 'devalue', 'ufo', 'hookable'] },
    esbuild: { options: { target: 'node20' } },
  },
  vite: {
    $client: {
      build: {
        rollupOptions: {
          output: {
            // What several pages share comes together: asked for one by one each file costs a way to the server.
            experimentalMinChunkSize: 10_000,
            manualChunks: chunksByPage(),
            onlyExplicitManualChunks: true,
          },
        },
      },
    },
    plugins: [
      {
        name: 'buttons-without-colour-maths',
        enforce: 'pre',
        resolveId: (source, importer) =>
          source === '@ctrl/tinycolor' && importer?.includes('/element-plus/es/components/button/')
            ? fileURLToPath(new URL('./app/shims/no-colour-maths.ts', import.meta.url))
            : null,
      },
      {
        // What asks at every start whether a browser is one of ten years ago does so by an error for each kind of thing.
        name: 'tags-as-they-are',
        enforce: 'pre',
        resolveId: (source, importer) =>
          source.endsWith('/_getTag.js') && importer?.includes('/lodash-es/')
            ? fileURLToPath(new URL('./node_modules/lodash-es/_baseGetTag.js', import.meta.url))
            : null,
      },
      {
        // The component library's rules lie below our own, in whatever order the parts of a page are loaded.
        name: 'element-plus-below',
        enforce: 'pre',
        transform: (code, id) =>
          /element-plus\/theme-chalk\/.*\.css$/.test(id) ? `@layer element-plus {\n${code}\n}` : null,
      },
    ],
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  hooks: {
    'nitro:config'(config) {
      // Nobody signs in through another service: their addresses and secrets need not be looked for at every start.
      delete config.runtimeConfig?.oauth
    },
    'build:manifest'(manifest) {
      const chunks = manifest as Chunks
      shelfFiles = filesOfShelf(chunks)
      keepThoseOfEveryPage(chunks)
    },
    'nitro:init'(nitro) {
      // Pages are made in the browser: what the server writes of them wants no more of the framework than its references. Nor
      // does it ask other servers for anything.
      const noRequests = fileURLToPath(new URL('./server/shims/no-requests.ts', import.meta.url))
      nitro.hooks.hook('rollup:before', (_, { plugins }) => {
        if (!nitro.options.dev && Array.isArray(plugins))
          plugins.unshift({
            name: 'no-framework-on-the-server',
            resolveId(source: string, importer?: string) {
              if (source === 'ofetch') return noRequests
              const part = { vue: 'runtime-core', '@vue/reactivity': 'reactivity', '@vue/shared': 'shared' }[source]
              return part ? this.resolve(`@vue/${part}/dist/${part}.esm-bundler.js`, importer) : null
            },
          })
      })
      // Reports are worked out by a thread of their own: its script lies beside the server.
      nitro.hooks.hook('compiled', async () => {
        if (nitro.options.dev) return
        const { build } = await import('esbuild')
        const entry = fileURLToPath(new URL('./server/workers/report.ts', import.meta.url))
        await build({
          entryPoints: [entry],
          outfile: `${nitro.options.output.serverDir}/workers/report.mjs`,
          bundle: true,
          platform: 'node',
          format: 'esm',
          target: 'node20',
          logLevel: 'warning',
        })
      })
    },
  },
  auth: { loadStrategy: 'none' },
  elementPlus: { importStyle: 'css' },
  eslint: { config: { stylistic: { indent: 2, braceStyle: 'stroustrup' } } },
})
