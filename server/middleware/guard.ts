import { DomainProblem } from '../problems'
import { sendProblem } from '../utils/routes'

const loopbackHost = /^(localhost|127(?:\.\d{1,3}){3}|\[::1\])(:\d+)?$/i
const mostBodyBytes = 16_000_000

/**
 * Every request must name a loopback host (so that a foreign name pointing here is turned away), writes must come from
 * this very origin, and a body has a limit.
 */
export default defineEventHandler((event) => {
  const host = getHeader(event, 'host') ?? ''
  if (!loopbackHost.test(host)) return sendProblem(event, new DomainProblem('forbidden-origin', 'This address is not one the application answers to.'))
  if (event.method === 'GET' || event.method === 'HEAD') return
  const origin = getHeader(event, 'origin')
  const site = getHeader(event, 'sec-fetch-site')
  const foreign = origin !== undefined ? origin !== `http://${host}` : site !== undefined && site !== 'same-origin' && site !== 'none'
  if (foreign) return sendProblem(event, new DomainProblem('forbidden-origin', 'Changes are only taken from the application’s own pages.'))
  if (Number(getHeader(event, 'content-length') ?? 0) > mostBodyBytes) {
    return sendProblem(event, new DomainProblem('too-large', 'This is over 16 MB, more than any build. Nothing was taken in.', 'file'))
  }
})
