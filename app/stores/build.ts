import { defineStore } from 'pinia'
import {
  applyCommand,
  applyUnlessRefused,
  CommandRefused,
  describeCommand,
  diffBuilds,
  gramsChangeWords,
  type Command,
  type Topic,
} from '#core/changes/commands'
import { asTwin, type Build, type Line, type LoadoutChoice } from '#core/model/ledger'
import { ListingBiasTable, listingObservations, type ListingObservation } from '#core/mass/listings'
import { countedLines, defaultLoadout, LineEstimates } from '#core/mass/loadout'
import { overviewOf, spreadShares } from '#core/mass/report'
import { mostInformativeWeighing, pieceQuestion as pieceQuestionOf, type PieceQuestion } from '#core/deciding/weigh'
import { wholeBuild } from '#shared/schemas/lean-build'
import type { BuildReply, CommandReply, CommandsReply, Steps } from '#shared/schemas/api'
import type { MassVersion } from '#shared/schemas/build-file'
import type { JournalEntry } from '#shared/schemas/journal'
import type { QueuedEdit } from '../queue'
import { documentOfBuild, type QueuedCommand } from './edits'

export type SaveState = 'saved' | 'saving' | 'waiting'

export const useBuildStore = defineStore('build', () => {
  const rules = useRulesStore()
  const scales = useScalesStore()
  const build = shallowRef<Build | null>(null)
  const revision = ref(0)
  const steps = ref<Steps>({ undo: null, redo: null })
  const honestyElsewhere = shallowRef<readonly ListingObservation[]>([])
  /** Lines that came weighed when the build was copied from another one. */
  const weighedElsewhere = shallowRef<BuildReply['weighedElsewhere']>(null)
  const selectedId = ref<string | null>(null)
  /** The loadout looked at; null means the one the build is flown in. */
  const viewed = shallowRef<LoadoutChoice | null>(null)
  const refusal = ref('')
  const pieceQuestion = shallowRef<PieceQuestion | null>(null)
  const journal = shownJournal(() => build.value?.id ?? null, askServer)
  const lastEntry = shallowRef<JournalEntry | null>(null)

  const edits = useEditsStore()
  const { queue } = edits
  /** The build as the server has it at `revision`; what waits here comes on top of it. */
  let written: Build | null = null
  /** The server has said that it is further than what is shown. */
  let heardOf = 0

  const document = computed(() => (build.value ? documentOfBuild(build.value.id) : ''))
  const line = computed(() => edits.stateOf(document.value))
  const saveState = computed<SaveState>(() =>
    !line.value ? 'saved' : line.value.why || line.value.met ? 'waiting' : 'saving',
  )
  /** The change of this build that met somebody else’s, until the builder has chosen. */
  const conflict = computed(() => line.value?.met ?? null)

  const honesty = computed(
    () => new ListingBiasTable([...honestyElsewhere.value, ...listingObservations(build.value?.lines ?? [])]),
  )
  const estimates = computed((before?: LineEstimates) =>
    (before ?? new LineEstimates(new ListingBiasTable())).for(
      build.value ?? { lines: [], observations: [] },
      honesty.value,
    ),
  )
  const choice = computed<LoadoutChoice>(() => {
    if (!build.value) return { setupId: '', packLineId: null }
    return defaultLoadout(viewed.value ? { ...build.value, flies: viewed.value } : build.value)
  })
  const overview = computed(() =>
    build.value ? overviewOf(build.value, choice.value, rules.cards, estimates.value) : null,
  )
  const selected = computed(() => build.value?.lines.find(line => line.id === selectedId.value) ?? null)
  const shares = computed(() =>
    overview.value ? spreadShares(overview.value.counted, overview.value.total, estimates.value) : [],
  )
  const narrowing = computed(() => {
    if (!overview.value || !build.value) return null
    const { binding, openLines } = overview.value
    // What settles it is asked of the loadout, and of the lines, that the binding card looks at.
    const looked = countedLines(build.value, binding?.heaviest ?? choice.value).filter(
      line => !(binding?.card.counts === 'airframe-and-pack' && line.removable),
    )
    const limit =
      binding?.limitG != null && binding.card.comparator !== 'none' && openLines + binding.openLines === 0
        ? { limitG: binding.limitG, comparator: binding.card.comparator, confidence: build.value.aim.confidence }
        : null
    const honestyOf = (lines: readonly Line[]) =>
      new ListingBiasTable([...honestyElsewhere.value, ...listingObservations(lines)])
    return mostInformativeWeighing(
      build.value,
      looked,
      estimates.value,
      { ready: scales.ready, references: scales.references, honestyOf },
      limit,
    )
  })

  /** The same grams, of another piece than before. */
  function ofAnotherPiece(command: Command, lineId: string): Command {
    if (command.type === 'line.weigh') return { ...command, as: 'another piece' }
    return command.type === 'lines.change'
      ? {
          ...command,
          changes: command.changes.map(change => (change.id === lineId ? { ...change, anotherPiece: true } : change)),
        }
      : command
  }

  const pending = (id: string) => queue.pending(documentOfBuild(id))

  /** What waits carried out on a build; what no longer fits is left to the server to refuse. */
  function onTopOf(from: Build): Build {
    let next = from
    for (const edit of pending(from.id)) {
      next = applyUnlessRefused(next, (edit.payload as QueuedCommand).command) ?? next
    }
    return next
  }

  function take(reply: BuildReply) {
    written = reply.build
    build.value = onTopOf(reply.build)
    revision.value = reply.revision
    steps.value = reply.steps
    honestyElsewhere.value = reply.honestyElsewhere
    weighedElsewhere.value = reply.weighedElsewhere
  }

  async function fetchBuild(id: string): Promise<BuildReply> {
    const reply = await askServer<BuildReply>(`/api/builds/${encodeURIComponent(id)}`)
    return { ...reply, build: wholeBuild(reply.build) }
  }

  /** Another build as it is kept, for a look at it beside this one. */
  const otherBuild = async (id: string): Promise<Build> => (await fetchBuild(id)).build

  /** The one asked for last; a late answer never takes the place of a newer one. */
  let opening = ''
  async function open(id: string) {
    opening = id
    if (build.value?.id !== id) reset()
    const [reply] = await Promise.all([fetchBuild(id), edits.resumed])
    if (opening !== id || (build.value?.id === id && reply.revision < revision.value)) return
    take(reply)
  }

  /** Another window has changed the build: shows it as it is there, unless something of ours is on its way. */
  async function follow(id: string, newRevision: number) {
    heardOf = Math.max(heardOf, newRevision)
    if (build.value?.id !== id || newRevision <= revision.value || pending(id).length > 0) return
    await catchUp(id)
  }

  async function catchUp(id: string) {
    const reply = await fetchBuild(id).catch(() => null)
    if (!reply || build.value?.id !== id || reply.revision < revision.value) return
    take(reply)
    if (journal.entries.value.length > 0) await loadJournal()
  }

  /**
   * Carries a command out here at once and puts it in the build’s line of changes. Returns false, with the sentence in
   * `refusal`, when the build refuses it; nothing has changed then.
   */
  function run(command: Command, note = ''): boolean {
    forgetTold()
    const before = build.value
    if (!before) return false
    // What is chosen by set-up joins the one looked at: counted nowhere it would be forgotten.
    if (command.type === 'lines.add' && command.setupId === undefined)
      command = { ...command, setupId: choice.value.setupId }
    let next: Build
    try {
      next = applyCommand(before, command)
    } catch (error) {
      if (!(error instanceof CommandRefused)) throw error
      refusal.value = error.message
      return false
    }
    refusal.value = ''
    const asked = questionAfter(command, before, next)
    // What one piece cannot be is taken for another one until somebody says otherwise.
    if (asked && asked !== pieceQuestion.value && asked.until === 'another') {
      command = ofAnotherPiece(command, asked.lineId)
      next = applyCommand(before, command)
    }
    build.value = next
    pieceQuestion.value = asked
    const { title, gramsBeforeG, gramsAfterG } = describeCommand(command, before, diffBuilds(before, next))
    queue.add(
      documentOfBuild(before.id),
      before.name,
      revision.value,
      { command, note } satisfies QueuedCommand,
      [title, gramsChangeWords(gramsBeforeG, gramsAfterG)].filter(text => text !== '').join(', '),
    )
    return true
  }

  /**
   * What is to be asked of new grams: whether they are of the same piece. An older question that was not answered stays
   * until there is another.
   */
  function questionAfter(command: Command, before: Build, after: Build): PieceQuestion | null {
    const open = pieceQuestion.value
    if (command.type === 'line.another' || command.type === 'line.same') return null
    const ids =
      command.type === 'line.weigh'
        ? [command.id]
        : command.type === 'lines.change'
          ? command.changes.map(change => change.id)
          : []
    for (const id of ids) {
      const asked = pieceQuestionOf(before, after, id, choice.value, rules.cards, honesty.value)
      if (asked) return asked
    }
    return open && after.lines.some(line => line.id === open.lineId) && !ids.includes(open.lineId) ? open : null
  }

  /** What came weighed with a copy: twins of what was weighed, or pieces that were on a scale themselves. */
  function answerCopied(are: 'twins' | 'weighed') {
    const changes = (weighedElsewhere.value?.lineIds ?? []).flatMap(id => {
      const mass = build.value?.lines.find(line => line.id === id)?.mass
      return mass
        ? [{ id, fields: { mass: are === 'twins' ? asTwin(mass, newId()) : { ...mass, versionId: newId() } } }]
        : []
    })
    if (
      changes.length === 0 ||
      run(
        { type: 'lines.change', changes },
        are === 'twins' ? 'copied: these pieces were never on a scale' : 'copied: these pieces were weighed too',
      )
    )
      weighedElsewhere.value = null
  }

  function answerPiece(answer: 'same' | 'another') {
    const asked = pieceQuestion.value
    pieceQuestion.value = null
    if (!asked || asked.until === answer) return
    run(
      answer === 'another'
        ? { type: 'line.another', id: asked.lineId, versionId: asked.versionId, was: asked.was }
        : { type: 'line.same', id: asked.lineId, was: asked.was },
    )
  }

  /** The build after changes the server has accepted; null where it must have been another build. */
  function carriedOut(from: Build, sent: readonly QueuedEdit[]): Build | null {
    return sent.reduce<Build | null>(
      (build, edit) => build && applyUnlessRefused(build, (edit.payload as QueuedCommand).command),
      from,
    )
  }

  function accepted(sent: readonly QueuedEdit[], reply: CommandsReply) {
    const id = build.value!.id
    const base = sent[0]!.base
    steps.value = reply.steps
    lastEntry.value = reply.entries.at(-1) ?? lastEntry.value
    journal.add(reply.entries)
    const advanced =
      written && base === revision.value && reply.revision === base + reply.entries.length
        ? carriedOut(written, sent)
        : null
    if (advanced) {
      written = advanced
      revision.value = reply.revision
      queue.advance(documentOfBuild(id), base, reply.revision)
      if (heardOf > reply.revision && pending(id).length === 0) void catchUp(id)
    }
    // Somebody else has written too, or the server changed more than was asked (another line that is the same part).
    else {
      void catchUp(id)
    }
  }

  queue.listen({
    accepted(of, sent, reply) {
      if (of === document.value) accepted(sent, reply as CommandsReply)
    },
    refused(edit) {
      if (edit.document !== document.value) return
      refusal.value = `${edit.words}: ${edit.sentence}`
      if (written) build.value = onTopOf(written)
      void catchUp(build.value!.id)
    },
    sentElsewhere(of) {
      if (of === document.value) void catchUp(build.value!.id)
    },
    changed(of) {
      if (of === document.value && written && heardOf > revision.value && pending(written.id).length === 0)
        void catchUp(written.id)
    },
  })

  /** Ends a conflict: with `mine` the change is made on top of what is there, otherwise it is dropped. What came after it goes on. */
  function settleConflict(mine: boolean) {
    const id = build.value?.id
    if (!id) return
    queue.settleMeeting(documentOfBuild(id), mine ? 'mine' : 'theirs')
    void catchUp(id)
  }

  /** Waits until everything typed so far is on disk, or is known to wait. */
  const settled = () => queue.settled(document.value)

  async function step(kind: 'undo' | 'redo') {
    if (!build.value) return
    forgetTold()
    pieceQuestion.value = null
    const { id } = build.value
    // What was not sent yet is simply taken out of the line.
    if (kind === 'undo' && saveState.value === 'waiting' && queue.takeBackLast(documentOfBuild(id))) {
      if (written) build.value = onTopOf(written)
      return
    }
    await settled()
    if (pending(id).length > 0) {
      refusal.value = 'Changes of this build still wait to be written. Take back or do again when they are.'
      return
    }
    const what = steps.value[kind]
    if (!what) return
    try {
      const { entry, ...reply } = await askServer<CommandReply>(`/api/builds/${encodeURIComponent(id)}/${kind}`, {
        method: 'POST',
        revision: revision.value,
        key: `${kind}-${newId()}.1`,
      })
      if (build.value?.id !== id) return
      steps.value = reply.steps
      lastEntry.value = entry ?? lastEntry.value
      await catchUp(id)
      const other = kind === 'undo' ? ('redo' as const) : ('undo' as const)
      void tell(`${kind === 'undo' ? 'Taken back' : 'Done again'}: ${what}`, {
        words: kind === 'undo' ? 'Do again' : 'Take back',
        act: () => step(other),
      })
    } catch (error) {
      refusal.value = sentenceOf(error)
      await catchUp(id)
    }
  }

  async function loadJournal() {
    await settled()
    await journal.load()
  }
  async function searchJournal(topic: Topic | '', words: string) {
    await settled()
    await journal.search(topic, words)
  }
  /** Makes the build, or some of its lines, what it was after an entry; false, with the sentence in `refusal`, where it cannot be. */
  async function goBack(seq: number, lineIds: readonly string[] | null): Promise<boolean> {
    await settled()
    if (!build.value) return false
    const { id } = build.value
    try {
      const { entry } = await askServer<CommandReply>(`/api/builds/${encodeURIComponent(id)}/back`, {
        method: 'POST',
        revision: revision.value,
        key: `back-${newId()}.1`,
        body: { seq, lineIds },
      })
      await catchUp(id)
      if (entry) void tell(entry.title, { words: 'Take back', act: () => step('undo') })
      return true
    } catch (error) {
      refusal.value = sentenceOf(error)
      await catchUp(id)
      return false
    }
  }
  /** Keeps the reason of an entry; false, with the sentence in `refusal`, where it could not be kept: it stays where it was typed. */
  async function annotate(seq: number, note: string): Promise<boolean> {
    if (!build.value) return false
    try {
      await askServer(`/api/builds/${build.value.id}/journal/${seq}`, { method: 'PATCH', body: { note } })
      journal.noted(seq, note)
      if (lastEntry.value?.seq === seq) lastEntry.value = { ...lastEntry.value, note }
      return true
    } catch (error) {
      refusal.value = `The reason was not kept: ${sentenceOf(error)}`
      return false
    }
  }

  /** Every version of a line's grams, oldest first. */
  async function historyOf(lineId: string): Promise<readonly MassVersion[]> {
    await settled()
    if (!build.value) return []
    return (await askServer<{ versions: MassVersion[] }>(`/api/builds/${build.value.id}/lines/${lineId}/history`))
      .versions
  }

  const lineOf = (id: string): Line | undefined => build.value?.lines.find(line => line.id === id)

  function reset() {
    build.value = null
    revision.value = 0
    steps.value = { undo: null, redo: null }
    honestyElsewhere.value = []
    weighedElsewhere.value = null
    selectedId.value = null
    viewed.value = null
    refusal.value = ''
    pieceQuestion.value = null
    journal.reset()
    lastEntry.value = null
    written = null
    heardOf = 0
  }

  return {
    build,
    revision,
    steps,
    honestyElsewhere,
    weighedElsewhere,
    selectedId,
    viewed,
    saveState,
    refusal,
    conflict,
    pieceQuestion,
    journal: journal.entries,
    hasEarlier: journal.hasEarlier,
    loadEarlier: journal.loadEarlier,
    lastEntry,
    estimates,
    honesty,
    choice,
    overview,
    selected,
    shares,
    narrowing,
    open,
    otherBuild,
    follow,
    run,
    answerPiece,
    answerCopied,
    settleConflict,
    settled,
    step,
    loadJournal,
    journalOf: journal.filter,
    searchJournal,
    marked: journal.marked,
    goBack,
    annotate,
    historyOf,
    lineOf,
    reset,
  }
})
