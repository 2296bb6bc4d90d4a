import type { Problem } from '#shared/schemas/api'

/** What the server said when it could not do something: a sentence for the builder and the field it is about. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
    this.name = 'ApiProblem'
  }
}

/** The server did not answer at all. */
export class NoAnswer extends Error {
  constructor() {
    super('The server does not answer.')
    this.name = 'NoAnswer'
  }
}

interface Request { method?: string, body?: unknown, text?: string, file?: File, revision?: number }

/** Asks the server; throws {@link ApiProblem} with its sentence or {@link NoAnswer}. Only stores call this. */
export async function askServer<T>(path: string, { method = 'GET', body, text, file, revision }: Request = {}): Promise<T> {
  const headers: Record<string, string> = {}
  if (revision !== undefined) headers['if-match'] = `"${revision}"`
  if (body !== undefined) headers['content-type'] = 'application/json'
  let response: Response
  try { response = await fetch(path, { method, headers, body: text ?? file ?? (body === undefined ? undefined : JSON.stringify(body)) }) }
  catch { throw new NoAnswer() }
  const answer = await response.json().catch(() => null)
  if (response.ok) return answer as T
  throw new ApiProblem(answer ?? { type: 'about:blank', title: 'unexpected', status: response.status, code: 'unexpected', detail: 'The server gave an answer that cannot be read.' })
}

/** The sentence to show for anything that went wrong. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
