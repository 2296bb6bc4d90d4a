import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

function migrations() {
  const folder = new URL('./server/db/migrations/', import.meta.url)
  return readdirSync(folder)
    .filter(name => name.endsWith('.sql'))
    .map(name => ({ name, sql: readFileSync(new URL(name, folder), 'utf8') }))
}

/** The files of the shelf's page that the first script does not bring along: asked for together with it. */
let shelfFiles: readonly string[] = []

interface Chunk {
  file: string
  isEntry?: boolean
  imports?: string[]
  css?: string[]
  prefetch?: boolean
}
function filesOfPage(chunks: Record<string, Chunk>, page: string): string[] {
  const reach = (key: string, seen: Set<string>) => {
    if (seen.has(key)) return seen
    seen.add(key)
    for (const next of chunks[key]?.imports ?? []) reach(next, seen)
    return seen
  }
  const keys = Object.keys(chunks)
  // A page that others take something from has no chunk of its own name: what they take belongs into a file of its own.
  if (!chunks[page]) throw new Error(`${page} is not a chunk of its own`)
  const there = keys.filter(key => chunks[key]!.isEntry).reduce((seen, key) => reach(key, seen), new Set<string>())
  const own = [...reach(page, new Set())].filter(key => !there.has(key))
  return own.flatMap(key => [chunks[key]!.file, ...(chunks[key]!.css ?? [])])
}

export default defineNuxtConfig({
  modules: ['@pinia/nuxt', '@element-plus/nuxt', '@vueuse/nuxt', '@nuxt/eslint', 'nuxt-auth-utils'],
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
    '@fontsource-variable/fraunces',
    '@fontsource-variable/instrument-sans',
    '@fontsource/spline-sans-mono/500.css',
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
    externals: { inline: ['zod', '@vue', 'unhead', 'vue-bundle-renderer', 'devalue', 'ufo', 'hookable'] },
    esbuild: { options: { target: 'node20' } },
  },
  vite: {
    $client: {
      build: {
        rollupOptions: {
          output: {
            // Small pieces that several pages share come together: asked for one by one each costs a way to the server.
            experimentalMinChunkSize: 10_000,
            // Every page may tell something; what happens to be used by the same pages stays out of the first one.
            manualChunks: id =>
              id.endsWith('/app/utils/tell.ts') ? 'tell' : id.includes('/demo/builds/') ? 'sample' : undefined,
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
    // The first page does not share the line with all the others: they are loaded ahead once it stands.
    'build:manifest'(manifest) {
      for (const part of Object.values(manifest)) part.prefetch = false
      shelfFiles = filesOfPage(manifest as Record<string, Chunk>, 'pages/index.vue')
    },
    'nitro:init'(nitro) {
      // Pages are made in the browser: what the server writes of them wants no more of the framework than its references.
      nitro.hooks.hook('rollup:before', (_, { plugins }) => {
        if (!nitro.options.dev && Array.isArray(plugins))
          plugins.unshift({
            name: 'no-framework-on-the-server',
            resolveId(source: string, importer?: string) {
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
