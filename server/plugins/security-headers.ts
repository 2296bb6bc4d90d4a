import { createHash } from 'node:crypto'
import { pagePolicy } from '../network/headers'

/** Pages carry the hashes of their own inline scripts, and nothing about what made them. */
export default defineNitroPlugin(nitro => {
  // A route asked by a method it does not have is no page.
  nitro.hooks.hook('render:before', context => {
    if (!context.event.path.startsWith('/api/')) return
    const problem = {
      type: 'urn:jolly-gram:not-allowed',
      title: 'not-allowed',
      status: 405,
      code: 'not-allowed',
      detail: 'This cannot be done at this address.',
    }
    context.response = {
      statusCode: 405,
      statusMessage: 'Method Not Allowed',
      headers: { 'content-type': 'application/problem+json' },
      body: JSON.stringify(problem),
    }
  })
  nitro.hooks.hook('render:response', response => {
    if (response.statusCode === 405) return
    const html = typeof response.body === 'string' ? response.body : ''
    const hashes = [...html.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
      match => `'sha256-${createHash('sha256').update(match[1]!).digest('base64')}'`,
    )
    const { 'x-powered-by': _poweredBy, ...headers } = response.headers as Record<string, string>
    response.headers = { ...headers, 'content-security-policy': pagePolicy(hashes) }
  })
  nitro.hooks.hook('beforeResponse', event => {
    event.node.res.removeHeader('x-powered-by')
  })
})
