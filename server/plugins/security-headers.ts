import { createHash } from 'node:crypto'
import { pagePolicy } from '../network/headers'

/** Pages carry the hashes of their own inline scripts, and nothing about what made them. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response) => {
    const html = typeof response.body === 'string' ? response.body : ''
    const hashes = [...html.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)]
      .map(match => `'sha256-${createHash('sha256').update(match[1]!).digest('base64')}'`)
    const { 'x-powered-by': _poweredBy, ...headers } = response.headers as Record<string, string>
    response.headers = { ...headers, 'content-security-policy': pagePolicy(hashes) }
  })
  nitro.hooks.hook('beforeResponse', (event) => { event.node.res.removeHeader('x-powered-by') })
})
