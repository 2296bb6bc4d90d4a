/**
 * In the place of the library a server would send requests with. Ours sends none through it, and starts earlier when what
 * such requests need is never loaded.
 */
const sent = (what: unknown): never => {
  throw new Error(`This server sends no requests of its own, not to “${String(what)}” either.`)
}
export const $fetch = sent
export const createFetch = () => sent
export const Headers = undefined
export class FetchError extends Error {}
