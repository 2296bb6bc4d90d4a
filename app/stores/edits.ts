import { defineStore } from 'pinia'
import { nanoid } from 'nanoid'
import {
  byLeases,
  byWebLocks,
  databaseStorage,
  EditQueue,
  openEditDatabase,
  type DocumentState,
  type SendOutcome,
  type QueuedEdit,
  type QueueListener,
  type SetAsideEdit,
} from '../queue'
import { outcomeOfFailure } from '../queue/outcome'
import { mostCommands } from '#shared/settings'
import type { CommandReply, CommandsReply } from '#shared/schemas/api'
import type { KeptChange, KeptDocument, KeptReply } from '#shared/schemas/kept'
import type { QueuedKeptChanges } from '../queue/overlay'
import type { Command } from '#core/changes/commands'

/** A command as it waits for a build. */
export interface QueuedCommand {
  readonly command: Command
  readonly note: string
}
const queryOf = (scope: string) => (scope === '' ? '' : `?scope=${encodeURIComponent(scope)}`)
/** Flights are taken back by build: `scope` is its id, '' for the other documents. */
export const stepsKey = (document: string, scope = '') => (scope === '' ? document : `${document}/${scope}`)
export const documentOfBuild = (id: string) => `build:${id}`

/** An edit is small: an answer that takes longer is asked for again. */
const editTimeoutMs = 10_000

async function sendCommands(buildId: string, edits: readonly QueuedEdit[]): Promise<CommandsReply> {
  const commands = edits.map(edit => ({ ...(edit.payload as QueuedCommand), key: edit.key }))
  const path = `/api/builds/${encodeURIComponent(buildId)}/commands`
  const request = { method: 'POST', revision: edits[0]!.base, timeoutMs: editTimeoutMs, data: edits[0]!.data }
  if (commands.length > 1) return askServer<CommandsReply>(`${path}/many`, { ...request, body: { commands } })
  const { entry, ...reply } = await askServer<CommandReply>(path, { ...request, body: commands[0] })
  return { ...reply, entries: entry ? [entry] : [] }
}

async function sendKept(document: string, edits: readonly QueuedEdit[]): Promise<KeptReply> {
  const body = { edits: edits.map(({ key, payload }) => ({ ...(payload as QueuedKeptChanges), key })) }
  return askServer<KeptReply>(`/api/kept/${encodeURIComponent(document)}`, {
    method: 'POST',
    body,
    timeoutMs: editTimeoutMs,
    data: edits[0]!.data,
  })
}

async function send(document: string, edits: readonly QueuedEdit[]): Promise<SendOutcome> {
  const ofBuild = document.startsWith('build:')
  try {
    return {
      kind: 'accepted',
      reply: ofBuild ? await sendCommands(document.slice('build:'.length), edits) : await sendKept(document, edits),
    }
  } catch (error) {
    const first = edits[0]!
    return outcomeOfFailure(error, ({ current }) =>
      ofBuild
        ? current
          ? { ...first, base: current.revision }
          : null
        : { ...first, payload: { ...(first.payload as QueuedKeptChanges), onTop: true } },
    )
  }
}

/** What has become of an edit as far as can be said now: written, waiting for the server or the builder, or refused. */
export type EditFate =
  { readonly kind: 'written' } | { readonly kind: 'waits' } | { readonly kind: 'refused'; readonly sentence: string }

/** The one queue of this page, with what is shown of it. */
export const useEditsStore = defineStore('edits', () => {
  const states = shallowRef<readonly DocumentState[]>([])
  const asides = shallowRef<readonly SetAsideEdit[]>([])
  const onlyHere = ref(false)

  const origin = nanoid(12)
  const opened = openEditDatabase()
  // Where the browser keeps nothing, edits still live in this tab.
  opened.catch(() => undefined)
  const others = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('jolly-gram-edits')
  // What waits goes into the browser’s database as it is: nothing of it may be wrapped to be watched.
  const queue = markRaw(
    new EditQueue({
      storage: databaseStorage(opened),
      exclusively: navigator.locks ? byWebLocks(navigator.locks) : byLeases(opened, origin),
      send,
      origin,
      data: pageData(),
      nowMs: Date.now,
      most: mostCommands,
      pause: (ms, wake) => Promise.race([wake, new Promise<void>(done => setTimeout(done, ms))]),
      announce: document => others?.postMessage(document),
    }),
  )
  others?.addEventListener('message', (event: MessageEvent<string>) => {
    void queue.heard(event.data).catch(() => undefined)
  })
  queue.listen({
    changed() {
      states.value = queue.states()
      asides.value = queue.setAsides()
      onlyHere.value = queue.onlyHere
    },
  })
  // Only what the browser’s database has not taken yet would be lost.
  window.addEventListener('beforeunload', event => {
    if (queue.wouldLose) event.preventDefault()
  })
  window.addEventListener('online', () => queue.wake())
  window.addEventListener('pageshow', () => queue.wake())
  const resumed = queue.resume().catch(() => {
    onlyHere.value = true
  })

  const steps = shallowRef<Readonly<Record<string, KeptReply['steps']>>>({})
  queue.listen({
    accepted(document, _sent, reply) {
      if (document.startsWith('build:')) return
      const { scope, steps: now } = reply as KeptReply
      steps.value = { ...steps.value, [stepsKey(document, scope)]: now }
    },
  })

  /** Resolves as soon as the fate of an edit is known, or that it has to wait. */
  function fateOf(edit: QueuedEdit): Promise<EditFate> {
    const now = (): EditFate | null => {
      const refused = queue.setAsides().find(aside => aside.key === edit.key)
      if (refused) return { kind: 'refused', sentence: refused.sentence }
      const state = queue.state(edit.document)
      const there = queue.pending(edit.document).some(other => other.key === edit.key)
      return !there ? { kind: 'written' } : state.why !== null || state.met !== null ? { kind: 'waits' } : null
    }
    const known = now()
    if (known) return Promise.resolve(known)
    return new Promise(done => {
      const stop = queue.listen({
        changed(document) {
          if (document !== edit.document) return
          const fate = now()
          if (!fate) return
          stop()
          done(fate)
        },
      })
    })
  }

  /**
   * Changes what is kept outside the builds. Returns '' when it is written or waits to be; otherwise the sentence that says
   * why not: whoever asked still has what was typed, so nothing is kept of it in the list of what could not be written.
   */
  async function keep(
    document: KeptDocument,
    name: string,
    changes: readonly (KeptChange | null)[],
    words: string,
  ): Promise<string> {
    const real = changes.filter(change => change !== null)
    if (real.length === 0) return ''
    const edit = queue.add(document, name, 0, { changes: real } satisfies QueuedKeptChanges, words)
    const fate = await fateOf(edit)
    if (fate.kind !== 'refused') return ''
    queue.letGo(edit.key)
    return fate.sentence
  }

  async function loadSteps(document: KeptDocument, scope = '') {
    const { steps: now } = await askServer<KeptReply>(`/api/kept/${document}${queryOf(scope)}`)
    steps.value = { ...steps.value, [stepsKey(document, scope)]: now }
  }
  /** Takes the last change of a document back, or does it again; what was not sent yet is taken out of its line. */
  async function step(document: KeptDocument, kind: 'undo' | 'redo', scope = '') {
    if (kind === 'undo' && queue.state(document).why !== null && queue.takeBackLast(document)) return
    await queue.settled(document)
    const path = `/api/kept/${document}/${kind}${queryOf(scope)}`
    const { steps: now } = await askServer<KeptReply>(path, { method: 'POST' })
    steps.value = { ...steps.value, [stepsKey(document, scope)]: now }
  }

  const waiting = computed(() => states.value.filter(state => state.why !== null || state.met !== null))
  const stateOf = (document: string) => states.value.find(state => state.document === document) ?? null
  function listen(listener: QueueListener) {
    return queue.listen(listener)
  }

  return { states, asides, onlyHere, waiting, resumed, queue, steps, stateOf, listen, fateOf, keep, loadSteps, step }
})
