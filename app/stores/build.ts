import { defineStore } from 'pinia'
import { applyCommand, CommandRefused, type Command } from '#core/commands'
import type { Build, Line, LoadoutChoice } from '#core/ledger'
import { HonestyTable, listingObservations, type ListingObservation } from '#core/listings'
import { defaultLoadout, LineEstimates } from '#core/loadout'
import { bestNarrowing, overviewOf, spreadShares } from '#core/report'
import { mostCommands } from '#shared/settings'
import type { BuildReply, CommandReply, CommandsReply, Steps } from '#shared/schemas/api'
import type { MassVersion } from '#shared/schemas/build-file'
import type { JournalEntry } from '#shared/schemas/journal'

/** A change that met a newer revision: what was wanted here, and what is there now. */
export interface Conflict { readonly commands: readonly Waiting[], readonly mine: Build, readonly theirs: BuildReply }
interface Waiting { readonly command: Command, readonly note: string }
export type SaveState = 'saved' | 'saving' | 'waiting for the server'

const retryMs = 1500

export const useBuildStore = defineStore('build', () => {
  const rules = useRulesStore()
  const build = shallowRef<Build | null>(null)
  const revision = ref(0)
  const steps = ref<Steps>({ undo: null, redo: null })
  const honestyElsewhere = shallowRef<readonly ListingObservation[]>([])
  const selectedId = ref<string | null>(null)
  /** The loadout looked at; null means the one the build is flown in. */
  const viewed = shallowRef<LoadoutChoice | null>(null)
  const saveState = ref<SaveState>('saved')
  const refusal = ref('')
  const conflict = shallowRef<Conflict | null>(null)
  const journal = shallowRef<JournalEntry[]>([])
  const lastEntry = shallowRef<JournalEntry | null>(null)

  let queue: Waiting[] = []
  let sending: Promise<void> | null = null

  const honesty = computed(() => new HonestyTable([...honestyElsewhere.value, ...listingObservations(build.value?.lines ?? [])]))
  const estimates = computed((before?: LineEstimates) => (before ?? new LineEstimates(new HonestyTable())).for(build.value ?? { lines: [], observations: [] }, honesty.value))
  const choice = computed<LoadoutChoice>(() => {
    if (!build.value) return { setupId: '', packLineId: null }
    return defaultLoadout(viewed.value ? { ...build.value, flies: viewed.value } : build.value)
  })
  const overview = computed(() => build.value ? overviewOf(build.value, choice.value, rules.cards, estimates.value) : null)
  const selected = computed(() => build.value?.lines.find(line => line.id === selectedId.value) ?? null)
  const shares = computed(() => overview.value ? spreadShares(overview.value.counted, overview.value.total, estimates.value) : [])
  const narrowing = computed(() => {
    if (!overview.value || !build.value) return null
    const { binding, counted, total } = overview.value
    const limit = binding?.limitG != null && binding.card.comparator !== 'none'
      ? { limitG: binding.limitG, comparator: binding.card.comparator, confidence: build.value.aim.confidence }
      : null
    return bestNarrowing(counted, total, estimates.value, limit)
  })

  function take(reply: BuildReply) {
    build.value = reply.build
    revision.value = reply.revision
    steps.value = reply.steps
    honestyElsewhere.value = reply.honestyElsewhere
  }

  async function open(id: string) {
    if (build.value?.id !== id) reset()
    const reply = await askServer<BuildReply>(`/api/builds/${id}`)
    if (queue.length === 0) take(reply)
  }

  /** Another window has changed the build: shows it as it is there, unless something of ours is on its way. */
  async function follow(id: string, newRevision: number) {
    if (build.value?.id !== id || newRevision <= revision.value || queue.length > 0 || conflict.value) return
    const reply = await askServer<BuildReply>(`/api/builds/${id}`).catch(() => null)
    if (!reply || build.value?.id !== id || queue.length > 0 || reply.revision <= revision.value) return
    take(reply)
    if (journal.value.length > 0) await loadJournal()
  }

  /**
   * Carries a command out here at once and sends it. Returns false, with the sentence in `refusal`, when the build
   * refuses it; nothing has changed then.
   */
  function run(command: Command, note = ''): boolean {
    if (!build.value) return false
    try { build.value = applyCommand(build.value, command) }
    catch (error) {
      if (!(error instanceof CommandRefused)) throw error
      refusal.value = error.message
      return false
    }
    refusal.value = ''
    queue.push({ command, note })
    saveState.value = 'saving'
    sending ??= send().finally(() => { sending = null })
    return true
  }

  async function send(): Promise<void> {
    const id = build.value!.id
    let most = mostCommands
    /** The server changed more than was asked: another line that is the same part of the drawer. */
    let behind = false
    while (queue.length > 0 && !conflict.value) {
      const batch = queue.slice(0, most)
      try {
        const reply = await sendBatch(id, batch)
        if (build.value?.id !== id) return
        queue.splice(0, batch.length)
        behind ||= reply.revision > revision.value + reply.entries.length
        accept(reply)
      }
      catch (error) {
        // One of them was refused, and so all: sent one by one, those before it are kept.
        if (batch.length > 1 && error instanceof ApiProblem && !error.problem.current) { most = 1 }
        else if (error instanceof NoAnswer) {
          saveState.value = 'waiting for the server'
          await new Promise(done => setTimeout(done, retryMs))
        }
        else { await meetProblem(error, id) }
      }
    }
    if (queue.length > 0) return
    if (behind) take(await askServer<BuildReply>(`/api/builds/${id}`))
    saveState.value = 'saved'
  }

  /** Everything that waited while the last answer was on its way goes in one request. */
  async function sendBatch(id: string, batch: readonly Waiting[]): Promise<CommandsReply> {
    if (batch.length > 1) return askServer<CommandsReply>(`/api/builds/${id}/commands/many`, { method: 'POST', revision: revision.value, body: { commands: batch } })
    const { entry, ...reply } = await askServer<CommandReply>(`/api/builds/${id}/commands`, { method: 'POST', revision: revision.value, body: batch[0] })
    return { ...reply, entries: entry ? [entry] : [] }
  }

  function accept(reply: CommandsReply) {
    revision.value = reply.revision
    steps.value = reply.steps
    lastEntry.value = reply.entries.at(-1) ?? lastEntry.value
    if (journal.value.length > 0) journal.value = [...[...reply.entries].reverse(), ...journal.value]
  }

  async function meetProblem(error: unknown, id: string) {
    const current = error instanceof ApiProblem ? error.problem.current : undefined
    if (current) {
      conflict.value = { commands: [...queue], mine: build.value!, theirs: current }
      return
    }
    queue = []
    refusal.value = sentenceOf(error)
    take(await askServer<BuildReply>(`/api/builds/${id}`))
  }

  /** Ends a conflict: with `mine` the waiting changes are made on top of what is there, otherwise they are dropped. */
  function settleConflict(mine: boolean) {
    const met = conflict.value
    if (!met) return
    conflict.value = null
    queue = []
    saveState.value = 'saved'
    take(met.theirs)
    if (mine) for (const { command, note } of met.commands) if (!run(command, note)) break
  }

  /** Waits until everything typed so far is on disk. */
  async function settled() {
    while (sending) await sending
  }

  async function step(kind: 'undo' | 'redo') {
    await settled()
    if (!build.value || !steps.value[kind]) return
    const id = build.value.id
    try {
      const { entry, ...reply } = await askServer<CommandReply>(`/api/builds/${id}/${kind}`, { method: 'POST', revision: revision.value })
      accept({ ...reply, entries: entry ? [entry] : [] })
      take(await askServer<BuildReply>(`/api/builds/${id}`))
      if (journal.value.length > 0) await loadJournal()
    }
    catch (error) {
      const current = error instanceof ApiProblem ? error.problem.current : undefined
      if (current) take(current)
      refusal.value = sentenceOf(error)
    }
  }

  async function loadJournal() {
    await settled()
    if (build.value) journal.value = (await askServer<{ entries: JournalEntry[] }>(`/api/builds/${build.value.id}/journal`)).entries
  }

  async function annotate(seq: number, note: string) {
    if (!build.value) return
    try {
      await askServer(`/api/builds/${build.value.id}/journal/${seq}`, { method: 'PATCH', body: { note } })
      journal.value = journal.value.map(entry => entry.seq === seq ? { ...entry, note } : entry)
      if (lastEntry.value?.seq === seq) lastEntry.value = { ...lastEntry.value, note }
    }
    catch (error) { refusal.value = sentenceOf(error) }
  }

  /** Every version of a line's grams, oldest first. */
  async function historyOf(lineId: string): Promise<readonly MassVersion[]> {
    await settled()
    if (!build.value) return []
    return (await askServer<{ versions: MassVersion[] }>(`/api/builds/${build.value.id}/lines/${lineId}/history`)).versions
  }

  const lineOf = (id: string): Line | undefined => build.value?.lines.find(line => line.id === id)

  function reset() {
    build.value = null
    revision.value = 0
    steps.value = { undo: null, redo: null }
    honestyElsewhere.value = []
    selectedId.value = null
    viewed.value = null
    saveState.value = 'saved'
    refusal.value = ''
    conflict.value = null
    journal.value = []
    lastEntry.value = null
    queue = []
  }

  return {
    build, revision, steps, honestyElsewhere, selectedId, viewed, saveState, refusal, conflict, journal, lastEntry,
    estimates, honesty, choice, overview, selected, shares, narrowing,
    open, follow, run, settleConflict, settled, step, loadJournal, annotate, historyOf, lineOf, reset,
  }
})
