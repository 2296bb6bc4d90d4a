import type { Problem } from '#shared/schemas/api'

/** What the server said when it could not do something: a sentence for the builder and the field it is about. */
export class ApiProblem extends Error {
  constructor(
    readonly problem: Problem,
    readonly retryAfterMs: number | null = null,
  ) {
    super(problem.detail)
    this.name = 'ApiProblem'
  }
}

/** Somebody stopped it. */
export class Stopped extends Error {
  constructor() {
    super('Stopped. Nothing was kept.')
  }
}

/** The server did not answer at all, or not in time. */
export class NoAnswer extends Error {
  constructor() {
    super('The server does not answer.')
    this.name = 'NoAnswer'
  }
}

interface Request {
  method?: string
  body?: unknown
  text?: string
  file?: File
  revision?: number
  key?: string
  timeoutMs?: number
  /** Given up where this says so: {@link Stopped} is thrown. */
  signal?: AbortSignal | undefined
  /** The data a write was typed on; those of this page where it is left out. */
  data?: string | undefined
}

const dataHeader = 'jolly-gram-data'
/** The data this page was opened on; '' where that is not known. */
export const pageData = (): string => document.querySelector<HTMLMetaElement>(`meta[name=${dataHeader}]`)?.content ?? ''

/** Other data have taken the place of those this page shows: it is opened anew. What waits is kept in the browser. */
function showOthers(answered: string | null): void {
  if (answered && pageData() !== '' && answered !== pageData()) location.reload()
}

/** An answer that takes longer is not waited for; files and reports say how long they may take. */
const usualTimeoutMs = 30_000

/** Asks the server; throws {@link ApiProblem} with its sentence or {@link NoAnswer}. Only stores call this. */
export async function askServer<T>(
  path: string,
  { method = 'GET', body, text, file, revision, key, timeoutMs = usualTimeoutMs, data, signal }: Request = {},
): Promise<T> {
  const headers: Record<string, string> = {}
  if (revision !== undefined) headers['if-match'] = `"${revision}"`
  if (key !== undefined) headers['idempotency-key'] = key
  const typedOn = data ?? (method === 'GET' ? '' : pageData())
  if (typedOn !== '') headers[dataHeader] = typedOn
  if (body !== undefined) headers['content-type'] = 'application/json'
  let response: Response
  let answer: unknown
  try {
    response = await fetch(path, {
      method,
      headers,
      body: text ?? file ?? (body === undefined ? undefined : JSON.stringify(body)),
      signal: givenUpBy(AbortSignal.timeout(timeoutMs), signal),
    })
    answer = await response.text()
  } catch {
    if (signal?.aborted) throw new Stopped()
    throw new NoAnswer()
  }
  answer = parsed(answer as string)
  showOthers(response.headers.get(dataHeader))
  if (response.ok && answer !== undefined) return answer as T
  const unreadable: Problem = {
    type: 'about:blank',
    title: 'unexpected',
    status: response.status,
    code: 'unexpected',
    detail: 'The server gave an answer that cannot be read.',
  }
  throw new ApiProblem(isProblem(answer) ? answer : unreadable, retryAfter(response))
}

/** Aborts with the first of both. */
function givenUpBy(first: AbortSignal, second: AbortSignal | undefined): AbortSignal {
  if (!second) return first
  const either = new AbortController()
  for (const one of [first, second]) {
    if (one.aborted) either.abort()
    one.addEventListener('abort', () => either.abort(), { once: true })
  }
  return either.signal
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
const isProblem = (answer: unknown): answer is Problem =>
  typeof answer === 'object' && answer !== null && typeof (answer as { detail?: unknown }).detail === 'string'
function retryAfter(response: Response): number | null {
  const seconds = Number(response.headers.get('retry-after') ?? NaN)
  return Number.isFinite(seconds) ? Math.min(Math.max(seconds, 0), 60) * 1000 : null
}

/** The sentence to show for anything that went wrong. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
