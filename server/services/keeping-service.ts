import { valueWords, type MeetingWords } from '../../core/changes/commands'
import { wordsOfField } from '../../core/text/display'
import { mergeByField, sameData, type MergeRules } from '../../core/basics/merge'
import { keptKinds, type KeptChange, type KeptDocument, type KeptEdit, type KeptReply } from '../../shared/schemas/kept'
import type { KeptChangeRecord, KeptJournalRepository, KeptScope } from '../db/kept-journal-repository'
import { DomainProblem } from '../problems'
import type { Writing } from './build-service'
import type { Fields } from '../../core/slices/contract'
import type { KeptHandler } from './kept-kinds'

interface Dependencies {
  readonly journal: KeptJournalRepository
  readonly handlers: Readonly<Record<string, KeptHandler>>
  readonly write: <T>(work: (writing: Writing) => T) => Promise<T>
  readonly now: () => string
}

const sets = new Set(['tags'])
const rules: MergeRules = {
  whole: new Set([
    'mass',
    'listing',
    'limit',
    'placings',
    'order',
    'own',
    'conditions',
    'within',
    'beyond',
    'always',
    'landing',
    'resistance',
    'snapshot',
    'lifeLimits',
  ]),
  keyOf: (_list, path) => (sets.has(path.at(-1) ?? '') ? String : null),
}
const picked = (from: Fields, keys: readonly string[]): Fields =>
  Object.fromEntries(keys.flatMap(key => (Object.hasOwn(from, key) ? [[key, from[key]]] : [])))

/** Settings that decide who is let in or what this machine connects to: set at the machine itself. */
export const settingsOfTheMachine = ['benchScale', 'networkNames'] as const

/**
 * The use cases of what is kept outside the builds: put in, changed by field, taken out, taken back. A change says what it
 * saw of the fields it changes; where somebody else has changed one of them meanwhile it is refused in words.
 */
export function keepingService({ journal, handlers, write, now }: Dependencies) {
  const steps = (document: KeptDocument, scope = ''): KeptReply => ({
    scope,
    steps: {
      undo: journal.nextUndo({ document, scope })?.title ?? null,
      redo: journal.nextRedo({ document, scope })?.title ?? null,
    },
  })
  /** Whose changes an entry is taken back with. */
  const scopeOf = ([first]: readonly KeptChangeRecord[]): string =>
    handlers[first!.kind]!.scopeOf?.((first!.after ?? first!.before)!) ?? ''

  function parsed(handler: KeptHandler, fields: Fields): Fields {
    const result = handler.schema.safeParse(fields)
    if (result.success) return result.data as Fields
    const issue = result.error.issues[0]!
    throw new DomainProblem('invalid', issue.message, issue.path.map(String).join('.'))
  }

  /** What a thing becomes. Kinds whose schema wants the id get it. */
  function nextOf(handler: KeptHandler, change: KeptChange, current: Fields | null, onTop: boolean): Fields {
    const set = change.set!
    if (!current) {
      if (change.seen) throw new DomainProblem('refused', 'It is no longer there: it was taken out meanwhile.')
      return withoutIdOf(parsed(handler, handler.needsId ? { ...set, id: change.id } : set))
    }
    const keys = Object.keys(set)
    // Put in a second time with what is there already: nothing to do. With something else it is another thing.
    if (change.seen === null && !onTop && !sameData(picked(current, keys), set))
      throw new DomainProblem('refused', 'There is something else with this id already.', 'id')
    const seen = change.seen === undefined || change.seen === null || onTop ? picked(current, keys) : change.seen
    const { merged, meetings } = mergeByField(seen, set, picked(current, keys), rules)
    if (meetings.length > 0)
      throw met(
        handler.nameOf(current),
        meetings.map(({ path, mine, theirs }) => ({
          what: path.map(wordsOfField).join(', '),
          mine: valueWords(mine, path.at(-1)!),
          theirs: valueWords(theirs, path.at(-1)!),
        })),
      )
    const next = { ...current, ...merged }
    return withoutIdOf(parsed(handler, handler.needsId ? { ...next, id: change.id } : next))
  }

  function met(name: string, meetings: readonly MeetingWords[]): DomainProblem {
    const { what, mine, theirs } = meetings[0]!
    return new DomainProblem(
      'stale',
      `“${name}” was changed in another window meanwhile. ${what}: you ${mine}; meanwhile ${theirs}. Nothing of yours was written.`,
      undefined,
      undefined,
      meetings,
    )
  }

  function carryOut(writing: Writing, change: KeptChange, onTop: boolean): KeptChangeRecord | null {
    const handler = handlers[change.kind]!
    const before = handler.get(change.id)
    if (change.set === null) {
      if (!before) return null
      if (change.seen && !onTop) {
        const keys = Object.keys(change.seen).filter(key => !sameData(before[key], change.seen![key]))
        if (keys.length > 0)
          throw met(
            handler.nameOf(before),
            keys.map(key => ({ what: wordsOfField(key), mine: 'deleted', theirs: valueWords(before[key], key) })),
          )
      }
      return { kind: change.kind, id: change.id, before, after: null, rest: handler.remove(change.id) }
    }
    const after = nextOf(handler, change, before, onTop)
    if (before && sameData(before, after)) return null
    handler.put(change.id, after, before, writing)
    return { kind: change.kind, id: change.id, before, after }
  }

  function titleOf(changes: readonly KeptChangeRecord[]): string {
    const [first] = changes
    const name = handlers[first!.kind]!.nameOf((first!.after ?? first!.before)!)
    const what =
      changes.length > 1
        ? `${changes.length} changes, ${name} first`
        : !first!.before
          ? `Added ${name}`
          : !first!.after
            ? `Deleted ${name}`
            : `${name}: ${Object.keys(first!.after)
                .filter(key => !sameData(first!.before![key], first!.after![key]))
                .map(wordsOfField)
                .join(', ')}`
    return what.slice(0, 300)
  }

  function carryOutEdit(writing: Writing, document: KeptDocument, { changes, key, onTop }: KeptEdit): string {
    if (key !== null && journal.has(document, key)) return ''
    for (const { kind } of changes)
      if (keptKinds[kind] !== document)
        throw new DomainProblem('invalid', `A ${kind} does not belong to ${document}.`, 'kind')
    const done = changes.flatMap(change => carryOut(writing, change, onTop) ?? [])
    if (done.length === 0) return ''
    const scope = scopeOf(done)
    journal.append({ document, scope }, now(), titleOf(done), key, done)
    return scope
  }

  /** Takes changes back, or does them again: refused where a field was changed since. */
  function replay(writing: Writing, of: KeptScope, kind: 'undo' | 'redo'): void {
    const entry = kind === 'undo' ? journal.nextUndo(of) : journal.nextRedo(of)
    if (!entry)
      throw new DomainProblem(
        'nothing-to-undo',
        kind === 'undo' ? 'There is nothing to take back.' : 'There is nothing to do again.',
      )
    for (const change of kind === 'undo' ? [...entry.changes].reverse() : entry.changes) {
      const handler = handlers[change.kind]!
      const [from, to] = kind === 'undo' ? [change.after, change.before] : [change.before, change.after]
      const current = handler.get(change.id)
      if (to === null) {
        if (current) handler.remove(change.id)
        continue
      }
      const { merged, meetings } = mergeByField<Fields | null>(from, to, current, rules)
      if (meetings.length > 0 || !merged)
        throw new DomainProblem('refused', `“${handler.nameOf(to)}” was changed since. Change it by hand.`)
      handler.put(
        change.id,
        withoutIdOf(parsed(handler, handler.needsId ? { ...merged, id: change.id } : merged)),
        current,
        writing,
      )
      if (!current && change.rest !== undefined) handler.restore?.(change.id, change.rest, writing)
    }
    // What a list brought in is not kept twice: taken back, it is brought in again from the list.
    const again = entry.changes.some(change => change.after !== null || change.before !== null)
    journal.mark(entry.seq, kind === 'redo' ? 'in force' : again ? 'taken back' : 'overtaken')
  }

  const step =
    (kind: 'undo' | 'redo') =>
    (document: KeptDocument, scope = '') =>
      write(writing => {
        replay(writing, { document, scope }, kind)
        return steps(document, scope)
      })
  return {
    steps,
    /** Several edits one after another, in one transaction: all of them or none. */
    change: (document: KeptDocument, edits: readonly KeptEdit[]) =>
      write(writing => {
        const scopes = edits.map(edit => carryOutEdit(writing, document, edit))
        return steps(document, scopes.at(-1))
      }),
    undo: step('undo'),
    redo: step('redo'),
    /** Brings the parts of a list in, once for each key; they are taken back as one. */
    bringIn: (ids: readonly string[], key: string | null, put: () => void) =>
      write(() => {
        if (key !== null && journal.has('drawer', key)) return
        put()
        journal.append(
          { document: 'drawer', scope: '' },
          now(),
          `Brought in ${ids.length === 1 ? 'a part' : `${ids.length} parts`} from a list`,
          key,
          ids.map(id => ({ kind: 'part', id, before: null, after: null })),
        )
      }),
  }
}
export type KeepingService = ReturnType<typeof keepingService>

function withoutIdOf(fields: Fields): Fields {
  const { id: _id, ...rest } = fields
  return rest
}
