import { newId } from '../utils/new-id'
import {
  guessDrawerMapping,
  readDrawerRows,
  readDrawerTable,
  type DrawerMapping,
  type DrawerRows,
} from '#shared/files/drawer-csv'

/** What the page asks: the heads and what they likely mean, or all rows under a mapping. */
export type ReadRequest =
  { readonly kind: 'heads'; readonly text: string } | { readonly kind: 'rows'; readonly mapping: DrawerMapping }
export type ReadReply =
  | {
      readonly kind: 'heads'
      readonly heads: readonly string[]
      readonly rows: number
      readonly mapping: DrawerMapping
    }
  | { readonly kind: 'progress'; readonly done: number }
  | { readonly kind: 'rows'; readonly read: DrawerRows }
  | { readonly kind: 'problem'; readonly problem: string }

let table: Exclude<ReturnType<typeof readDrawerTable>, { problem: string }> | null = null
const say = (reply: ReadReply) => postMessage(reply)

addEventListener('message', ({ data }: MessageEvent<ReadRequest>) => {
  if (data.kind === 'heads') {
    const read = readDrawerTable(data.text)
    if ('problem' in read) {
      say({ kind: 'problem', problem: read.problem })
      return
    }
    table = read
    say({ kind: 'heads', heads: read.heads, rows: read.rows.length, mapping: guessDrawerMapping(read.heads) })
  } else if (table) {
    say({ kind: 'rows', read: readDrawerRows(table, data.mapping, newId, done => say({ kind: 'progress', done })) })
  }
})
