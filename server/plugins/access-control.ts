import type { H3Event } from 'h3'
import type { Attempts } from '../network/attempts'
import { mostArchiveBytes, mostFileBytes, mostLogBytes } from '../../shared/files/largest'
import {
  forwardingHeaders,
  isAtHome,
  mostBodyBytes,
  refusalOf,
  type Refusal,
  type RequestFacts,
} from '../network/origin'
import { headersFor } from '../network/headers'
import { signInPage, signInPolicy, troublePage, whereTo } from '../network/sign-in-page'
import { dataProblemOf } from '../db/data-problem'
import { DomainProblem } from '../problems'
import { sessionDays } from '../services/session-service'
import { bodyBytes, closeBehindAnswer, tooLarge } from '../utils/body'
import { sendProblem } from '../utils/routes'

const sentences: Record<Exclude<Refusal, 'too-large'>, DomainProblem> = {
  'not-open': new DomainProblem(
    'not-open',
    'The application is not open to the network. Start it with “npm start -- --lan” for that.',
  ),
  'foreign-host': new DomainProblem(
    'forbidden-origin',
    'This address is not one the application answers to. Its name in the network can be given in Settings.',
  ),
  'foreign-origin': new DomainProblem('forbidden-origin', 'Changes are only taken from the application’s own pages.'),
}

declare module '#auth-utils' {
  interface User {
    signedIn: true
  }
  interface SecureSessionData {
    sessionId: string
  }
}

/** What may be larger than any other body, by where it comes in. */
const largeDoors = new Map([
  ['/api/builds/import', { mostBytes: mostFileBytes, beyond: tooLarge.file }],
  ['/api/archive/check', { mostBytes: mostArchiveBytes, beyond: tooLarge.archive }],
  ['/api/logs', { mostBytes: mostLogBytes, beyond: tooLarge.log }],
])

/**
 * Stands before everything, files included. Whoever comes from this machine’s loopback address, and was passed on by nobody,
 * is checked for host, origin of writes and size of bodies. Everybody else is answered only when the application was opened
 * to the network, and then wants the session that the passphrase gives; without it nothing but the sign-in page is answered.
 */
export default defineNitroPlugin(nitro => {
  let counting: Promise<Attempts> | null = null
  const counted = () => (counting ??= import('../network/attempts').then(module => new module.Attempts()))
  /** What sessions need, made ready at the start; tried again where the data could not be read then. */
  let opened: Promise<void> | null = null
  const ready = () =>
    (opened ??= openSessions().catch(error => {
      opened = null
      throw error
    }))
  ready().catch(() => undefined)
  // Whoever signs out is signed out on the server, not only in the cookie.
  sessionHooks.hook('clear', async session => {
    const id = session.secure?.sessionId
    if (id) (await useApplication()).sessions.end(id)
  })

  async function openSessions() {
    process.env.NUXT_SESSION_PASSWORD = await sealingKey()
    if (!isOnNetwork()) return
    const secret = await usePassphrase()
    if (!secret.isSet()) {
      console.error(
        'To be reached from the network the application needs a passphrase. Set it in Settings first, or give it as JOLLY_GRAM_PASSPHRASE.',
      )
      process.exit(2)
    }
    await secret.prepare()
  }

  async function sessionOf(event: H3Event): Promise<string | null> {
    const id = (await getUserSession(event)).secure?.sessionId
    return id && (await useApplication()).sessions.isOn(id) ? id : null
  }

  function page(event: H3Event, status: number, sentence: string, then = '/') {
    setResponseStatus(event, status)
    setHeaders(event, {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': signInPolicy,
      'cache-control': 'no-store',
    })
    return signInPage(sentence, then)
  }

  async function signIn(event: H3Event) {
    const from = event.node.req.socket.remoteAddress ?? ''
    const form = new URLSearchParams((await bodyBytes(event, 2000, tooLarge.passphrase)).toString('utf8'))
    const then = whereTo(form.get('then'))
    const attempts = await counted()
    const waitMs = await attempts.admit(from)
    if (waitMs > 0) {
      setHeader(event, 'retry-after', Math.ceil(waitMs / 1000))
      return page(event, 429, `Too many passphrases were tried. Wait ${Math.ceil(waitMs / 1000)} seconds.`, then)
    }
    if (!(await (await usePassphrase()).matches(form.get('passphrase') ?? '')))
      return page(event, 401, 'That is not the passphrase.', then)
    await attempts.succeeded(from)
    const { sessions } = await useApplication()
    await replaceUserSession(
      event,
      { user: { signedIn: true }, secure: { sessionId: sessions.begin() } },
      { maxAge: sessionDays * 24 * 60 * 60 },
    )
    return sendRedirect(event, then, 303)
  }

  const pathOf = (event: H3Event) => event.path.split('?')[0]!

  function factsOf(event: H3Event): RequestFacts {
    const { socket, headers } = event.node.req
    return {
      method: event.method,
      host: headers.host ?? '',
      origin: headers.origin,
      fetchSite: getHeader(event, 'sec-fetch-site'),
      contentLength: Number(headers['content-length'] ?? 0),
      mostBytes: largeDoors.get(pathOf(event))?.mostBytes ?? mostBodyBytes,
      localAddress: socket.localAddress ?? '',
      remoteAddress: socket.remoteAddress ?? '',
      forwarded: forwardingHeaders.some(name => headers[name] !== undefined),
    }
  }

  /** Names given in Settings; none while the data cannot be read. */
  async function namesGiven(): Promise<string> {
    try {
      return (await useApplication()).settings.load().networkNames
    } catch {
      return ''
    }
  }

  async function admit(event: H3Event) {
    const facts = factsOf(event)
    const path = pathOf(event)
    const home = isAtHome(facts)
    const names = home || !isOnNetwork() ? [] : machineNames(await namesGiven())
    const refusal = refusalOf(facts, { openToNetwork: isOnNetwork(), machineNames: names })
    if (refusal === 'too-large') {
      closeBehindAnswer(event)
      throw path.endsWith('/photos') || path === '/api/pictures'
        ? tooLarge.photo()
        : (largeDoors.get(path)?.beyond ?? tooLarge.data)()
    }
    if (refusal) throw sentences[refusal]
    if (!['GET', 'HEAD'].includes(event.method) && !path.startsWith('/api/') && path !== '/sign-in')
      throw new DomainProblem('not-allowed', 'This cannot be done at this address.')
    event.context.atTheMachine = home
    // Without its data there is nothing to show: said on every page, until it is mended.
    if (!path.startsWith('/_nuxt/')) await useApplication()
    if (home && !path.startsWith('/api/_auth/')) return path === '/sign-in' ? sendRedirect(event, '/', 303) : undefined
    await ready()
    if (home) return
    if (path === '/sign-in' && event.method === 'POST') return signIn(event)
    const session = await sessionOf(event)
    event.context.sessionId = session
    const query = getQuery(event).then
    const then = whereTo(path === '/sign-in' ? (typeof query === 'string' ? query : null) : event.path)
    if (session) return path === '/sign-in' ? sendRedirect(event, then, 303) : undefined
    const wantsPage = event.method === 'GET' && (getHeader(event, 'accept') ?? '').includes('text/html')
    if (wantsPage) return page(event, 401, '', then)
    throw new DomainProblem('signed-out', 'Sign in with the passphrase of this bench first.')
  }

  const guard = defineEventHandler(async event => {
    for (const [name, value] of headersFor(event.path)) event.node.res.setHeader(name, value)
    try {
      return await admit(event)
    } catch (error) {
      const trouble = dataProblemOf(error)
      const wantsPage = event.method === 'GET' && (getHeader(event, 'accept') ?? '').includes('text/html')
      if (!trouble || !wantsPage) return sendProblem(event, error)
      setResponseStatus(event, 503)
      setHeaders(event, {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': signInPolicy,
        'cache-control': 'no-store',
        'retry-after': 3,
      })
      return troublePage(trouble.message)
    }
  })
  nitro.h3App.stack.unshift({ route: '/', handler: guard })
})
