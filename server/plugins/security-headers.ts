import { createHash } from 'node:crypto'

/** A strict policy: only what ships with the application runs. Inline scripts of the page are allowed by their hash. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response) => {
    const html = typeof response.body === 'string' ? response.body : ''
    const hashes = [...html.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)]
      .map(match => `'sha256-${createHash('sha256').update(match[1]!).digest('base64')}'`)
    response.headers = {
      ...response.headers,
      'content-security-policy': [
        `default-src 'self'`, `script-src 'self' 'wasm-unsafe-eval' ${hashes.join(' ')}`.trim(), `style-src 'self' 'unsafe-inline'`, `img-src 'self' data:`, `font-src 'self'`,
        `connect-src 'self'`, `worker-src 'self'`, `object-src 'none'`, `base-uri 'none'`, `form-action 'self'`, `frame-ancestors 'none'`,
      ].join('; '),
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
    }
  })
})
