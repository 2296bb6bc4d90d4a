/** What the application’s own pages may load and run: only what ships with it. Inline scripts of a page are allowed by their hash. */
export function pagePolicy(scriptHashes: readonly string[] = []): string {
  return [
    `default-src 'self'`,
    `script-src 'self' 'wasm-unsafe-eval' ${scriptHashes.join(' ')}`.trim(),
    `style-src 'self' 'unsafe-inline'`,
    `img-src 'self' data: blob:`,
    `font-src 'self'`,
    `connect-src 'self'`,
    `worker-src 'self'`,
    `object-src 'none'`,
    `base-uri 'none'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ')
}

/** Data and files are not pages: shown by themselves they may load and run nothing. */
const dataPolicy = `default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'; sandbox`

type Headers = readonly (readonly [name: string, value: string])[]

function headers(policy: string, cache: string | null): Headers {
  return Object.entries({
    'x-content-type-options': 'nosniff',
    'referrer-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    'cross-origin-opener-policy': 'same-origin',
    'permissions-policy':
      'accelerometer=(), camera=(), geolocation=(), gyroscope=(), magnetometer=(), microphone=(), payment=(), usb=(), serial=(self)',
    'content-security-policy': policy,
    ...(cache === null ? {} : { 'cache-control': cache }),
  })
}
const ofData = headers(dataPolicy, 'no-store')
const ofScripts = headers(pagePolicy(), null)
const ofPages = headers(pagePolicy(), 'no-cache')

/**
 * What every answer says to the browser, whatever becomes of the request. Scripts of the application carry the policy
 * their workers run under.
 */
export function headersFor(path: string): Headers {
  if (path.startsWith('/api/') || path === '/api') return ofData
  return path.startsWith('/_nuxt/') ? ofScripts : ofPages
}
