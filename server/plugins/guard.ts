import type { H3Event } from 'h3'
import { Attempts } from '../network/attempts'
import { isAtHome, refusalOf, type Refusal } from '../network/origin'
import { signInPage } from '../network/sign-in-page'
import { DomainProblem } from '../problems'
import { sendProblem } from '../utils/routes'

const sentences: Record<Refusal | 'at-home', DomainProblem> = {
  'foreign-host': new DomainProblem('forbidden-origin', 'This address is not one the application answers to.'),
  'foreign-origin': new DomainProblem('forbidden-origin', 'Changes are only taken from the application’s own pages.'),
  'too-large': new DomainProblem('too-large', 'This is over 16 MB, more than any build. Nothing was taken in.', 'file'),
  'at-home': new DomainProblem('forbidden-origin', 'The passphrase is changed on the machine itself.'),
}

const tooLargeAPhoto = new DomainProblem('too-large', 'A photo has at most 16 MB. Nothing was kept.', 'photo')

declare module '#auth-utils' {
  interface User { bench: true }
  interface UserSession { stamp: string }
}

/**
 * Stands before everything, files included. On this machine's loopback address it checks the host, the origin of writes
 * and the size of bodies. On any other address it also wants the session that the passphrase gives; without it nothing
 * but the sign-in page is answered.
 */
export default defineNitroPlugin((nitro) => {
  const attempts = new Attempts()
  const ready = isOnNetwork() ? openToNetwork() : null

  async function openToNetwork() {
    if (!(await usePassphrase()).isSet()) {
      console.error('To be reached from the network the application needs a passphrase. Set it in Settings first, or give it as JOLLY_GRAM_PASSPHRASE.')
      process.exit(2)
    }
    process.env.NUXT_SESSION_PASSWORD = await sealingKey()
  }

  async function signedIn(event: H3Event): Promise<boolean> {
    const session = await getUserSession(event)
    return session.user?.bench === true && session.stamp === await (await usePassphrase()).stamp()
  }

  function page(event: H3Event, status: number, sentence: string) {
    setResponseStatus(event, status)
    setHeaders(event, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store', 'content-security-policy': `default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'`, 'x-content-type-options': 'nosniff' })
    return signInPage(sentence)
  }

  async function signIn(event: H3Event) {
    const from = event.node.req.socket.remoteAddress ?? ''
    const waitMs = attempts.waitMs(from, Date.now())
    if (waitMs > 0) {
      setHeader(event, 'retry-after', Math.ceil(waitMs / 1000))
      return page(event, 429, `Too many wrong passphrases. Wait ${Math.ceil(waitMs / 1000)} seconds.`)
    }
    if (Number(getHeader(event, 'content-length') ?? 0) > 2000) return page(event, 413, 'That is longer than any passphrase.')
    const passphrase = new URLSearchParams(await readRawBody(event) ?? '').get('passphrase') ?? ''
    const secret = await usePassphrase()
    if (!await secret.matches(passphrase)) {
      attempts.failed(from, Date.now())
      return page(event, 401, 'That is not the passphrase.')
    }
    attempts.succeeded(from)
    await replaceUserSession(event, { user: { bench: true }, stamp: await secret.stamp() })
    return sendRedirect(event, '/', 303)
  }

  const guard = defineEventHandler(async (event) => {
    const { req } = event.node
    const localAddress = req.socket.localAddress ?? ''
    const refusal = refusalOf({
      method: event.method, host: getHeader(event, 'host') ?? '', origin: getHeader(event, 'origin'), fetchSite: getHeader(event, 'sec-fetch-site'),
      contentLength: Number(getHeader(event, 'content-length') ?? 0), localAddress,
    }, machineNames())
    if (refusal === 'too-large' && event.path.endsWith('/photos')) return sendProblem(event, tooLargeAPhoto)
    if (refusal) return sendProblem(event, sentences[refusal])
    event.context.atTheMachine = isAtHome(localAddress)
    if (isAtHome(localAddress) || !isOnNetwork()) return
    await ready
    if (event.path === '/sign-in' && event.method === 'POST') return signIn(event)
    if (await signedIn(event)) return event.path === '/api/passphrase' ? sendProblem(event, sentences['at-home']) : undefined
    const wantsPage = event.method === 'GET' && (getHeader(event, 'accept') ?? '').includes('text/html')
    return wantsPage ? page(event, 401, '') : sendProblem(event, new DomainProblem('signed-out', 'Sign in with the passphrase of this bench first.'))
  })
  nitro.h3App.stack.unshift({ route: '/', handler: guard })
})
