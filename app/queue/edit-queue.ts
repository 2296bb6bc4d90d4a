import type { EditStorage, Exclusively, MetEdit, SendOutcome, QueuedEdit, SetAsideEdit, WaitReason } from './types'

/** What is told of the queue. Every call comes after the change. */
export interface QueueListener {
  /** Edits of a document were written. */
  accepted?: (document: string, edits: readonly QueuedEdit[], reply: unknown) => void
  /** One was refused and set aside. */
  refused?: (edit: SetAsideEdit) => void
  /** Edits of this tab were sent by another one: what is shown may be behind. */
  sentElsewhere?: (document: string) => void
  /** Something waits, is sent, has met another change or was set aside, or no longer is. */
  changed?: (document: string) => void
}

export interface QueueParts {
  readonly storage: EditStorage
  readonly exclusively: Exclusively
  readonly send: (document: string, edits: readonly QueuedEdit[]) => Promise<SendOutcome>
  /** Names this page in the keys of its edits: letters, digits and dashes. */
  readonly origin: string
  /** Names the data this page was opened on; '' where that is not known. */
  readonly data: string
  readonly nowMs: () => number
  /** Waits so long, or until `wake` is called. */
  readonly pause: (ms: number, wake: Promise<void>) => Promise<void>
  /** Tells the other tabs that the edits of a document have changed. */
  readonly announce: (document: string) => void
  /** The most edits sent together. */
  readonly most: number
}

/** How one document stands. */
export interface DocumentState {
  readonly document: string
  readonly name: string
  readonly waiting: number
  readonly sending: boolean
  readonly why: WaitReason | null
  readonly met: MetEdit | null
}

interface Line {
  edits: QueuedEdit[]
  /** Keys of edits that are on their way. */
  inFlight: Set<string>
  why: WaitReason | null
  met: MetEdit | null
  /** So many are sent one by one, because one of them was refused. */
  singly: number
  driving: boolean
  wake: (() => void) | null
}

const firstPauseMs = 1500
const longestPauseMs = 12_000

/** The part of an edit’s key that names the page it was typed on. */
const originOf = (edit: QueuedEdit) => edit.key.slice(0, edit.key.indexOf('.'))

/**
 * The edits that are not acknowledged yet, by document. Each belongs to its document for good: it is sent there, in order,
 * by one tab at a time, until it is acknowledged, refused (then it is set aside, and those behind it go on) or has met
 * another change (then its document waits for the builder). Silence, a lost session and a server in trouble only make it wait.
 */
export class EditQueue {
  private readonly lines = new Map<string, Line>()
  private readonly listeners = new Set<QueueListener>()
  private readonly durable = new Set<string>()
  /** What this page knows to be done with, though the storage may still hold it. */
  private readonly done = new Set<string>()
  private readonly writing = new Set<Promise<unknown>>()
  private aside: readonly SetAsideEdit[] = []
  private count = 0
  private lastOrder = 0
  /** Whether edits were kept in this tab only, since the browser’s database would not take them. */
  onlyHere = false

  constructor(private readonly parts: QueueParts) {}

  listen(listener: QueueListener): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** Keeps an edit and sends it as soon as may be. It is in its document’s line when this returns. */
  add(document: string, documentName: string, base: number, payload: unknown, words: string): QueuedEdit {
    this.lastOrder = Math.max(this.parts.nowMs(), this.lastOrder + 1)
    const edit: QueuedEdit = {
      key: `${this.parts.origin}.${++this.count}`,
      document,
      documentName,
      base,
      payload,
      words,
      order: this.lastOrder,
      ...(this.parts.data === '' ? {} : { data: this.parts.data }),
    }
    this.line(document).edits.push(edit)
    this.keep([edit])
    this.tell(document)
    void this.drive(document)
    return edit
  }

  pending(document: string): readonly QueuedEdit[] {
    return this.lines.get(document)?.edits ?? []
  }

  state(document: string): DocumentState {
    const line = this.lines.get(document)
    return {
      document,
      name: line?.edits[0]?.documentName ?? '',
      waiting: line?.edits.length ?? 0,
      sending: (line?.inFlight.size ?? 0) > 0,
      why: line?.why ?? null,
      met: line?.met ?? null,
    }
  }

  /** Every document of which something waits. */
  states(): DocumentState[] {
    return [...this.lines.keys()].map(document => this.state(document)).filter(state => state.waiting > 0)
  }

  setAsides(): readonly SetAsideEdit[] {
    return this.aside
  }

  /** Takes up what earlier pages and other tabs have left, and sends it. */
  async resume(): Promise<void> {
    const [edits, asides] = await Promise.all([this.parts.storage.all(), this.parts.storage.asides()])
    this.aside = asides
    for (const document of new Set([...edits.map(edit => edit.document), ...this.lines.keys()])) {
      this.adopt(
        document,
        edits.filter(edit => edit.document === document),
      )
      this.tell(document)
      void this.drive(document)
    }
    if (edits.length === 0) this.tell('')
  }

  /** Another tab has changed the edits of a document. */
  async heard(document: string): Promise<void> {
    this.aside = await this.parts.storage.asides()
    this.adopt(document, await this.parts.storage.of(document))
    this.tell(document)
    void this.drive(document)
  }

  /** Tries again at once, of one document or of all: the server may be there again, or somebody has signed in. */
  wake(): void {
    for (const [document, line] of this.lines) {
      if (line.wake) line.why = null
      line.wake?.()
      void this.drive(document)
    }
  }

  /** Resolves when nothing of a document is on its way: all is written, or it waits. */
  settled(document: string): Promise<void> {
    const line = this.lines.get(document)
    const moves = line && line.edits.length > 0 && line.why === null && line.met === null
    if (!moves) return Promise.resolve()
    return new Promise(done => {
      const stop = this.listen({
        changed: changed => {
          if (changed !== document || (line.edits.length > 0 && line.why === null && line.met === null)) return
          stop()
          done()
        },
      })
    })
  }

  /** Takes the last edit of this page back before it was sent; null when there is none, or it is on its way already. */
  takeBackLast(document: string): QueuedEdit | null {
    const line = this.lines.get(document)
    const last = line?.edits.at(-1)
    if (!line || !last || line.inFlight.has(last.key) || originOf(last) !== this.parts.origin) return null
    this.drop(line, document, [last.key])
    return last
  }

  /** Edits of this page that were typed on one revision are now known to stand on another, with nothing of others between. */
  advance(document: string, from: number, to: number): void {
    const line = this.lines.get(document)
    if (line)
      line.edits = line.edits.map(edit =>
        edit.base === from && originOf(edit) === this.parts.origin ? { ...edit, base: to } : edit,
      )
  }

  /** Ends a meeting: with `mine` the edit is made on top of what is there, otherwise it goes. What comes after it goes on. */
  settleMeeting(document: string, choice: 'mine' | 'theirs'): void {
    const line = this.lines.get(document)
    const met = line?.met
    if (!line || !met) return
    line.met = null
    if (choice === 'theirs') {
      this.drop(line, document, [met.edit.key])
    } else {
      const { onTop } = met
      line.edits = line.edits.map(edit => (edit.key === onTop.key ? onTop : edit))
      this.keep([onTop])
      this.tell(document)
    }
    void this.drive(document)
  }

  /** Takes a waiting edit out of the line by hand, and keeps it among those that could not be written. */
  setAsideByHand(key: string, sentence: string): void {
    for (const [document, line] of this.lines) {
      const edit = line.edits.find(e => e.key === key)
      if (!edit || line.inFlight.has(key)) continue
      line.met = line.met?.edit.key === key ? null : line.met
      this.putAside(line, document, edit, sentence)
      void this.drive(document)
    }
  }

  /** Puts an edit that was set aside back at the end of its document’s line. */
  tryAgain(key: string): void {
    const found = this.aside.find(edit => edit.key === key)
    if (!found) return
    const { sentence: _sentence, ...edit } = found
    this.lastOrder = Math.max(this.parts.nowMs(), this.lastOrder + 1)
    const again = { ...edit, order: this.lastOrder }
    this.aside = this.aside.filter(other => other.key !== key)
    this.line(edit.document).edits.push(again)
    this.write(
      this.parts.storage.putBack(again).then(() => {
        this.durable.add(key)
      }),
      edit.document,
    )
    this.tell(edit.document)
    void this.drive(edit.document)
  }

  letGo(key: string): void {
    const found = this.aside.find(edit => edit.key === key)
    if (!found) return
    this.aside = this.aside.filter(edit => edit.key !== key)
    this.write(this.parts.storage.removeAside(key), found.document)
    this.tell(found.document)
  }

  /** Whether a page that closes now would lose something: what the browser’s database has not taken yet. */
  get wouldLose(): boolean {
    return this.onlyHere
      ? this.states().length > 0
      : [...this.lines.values()].some(line => line.edits.some(edit => !this.durable.has(edit.key)))
  }

  private line(document: string): Line {
    const known = this.lines.get(document)
    if (known) return known
    const made: Line = { edits: [], inFlight: new Set(), why: null, met: null, singly: 0, driving: false, wake: null }
    this.lines.set(document, made)
    return made
  }

  /** Brings what is kept and what is held together: others’ edits come in, what another tab has sent goes. */
  private adopt(document: string, kept: readonly QueuedEdit[]): void {
    const line = this.line(document)
    const keys = new Set(kept.map(edit => edit.key))
    const gone = line.edits.filter(
      edit => this.durable.has(edit.key) && !keys.has(edit.key) && !line.inFlight.has(edit.key),
    )
    const held = new Set(line.edits.map(edit => edit.key))
    const came = kept.filter(edit => !held.has(edit.key) && !this.done.has(edit.key))
    for (const edit of came) this.durable.add(edit.key)
    // A clock that was put back does not put new edits before old ones.
    for (const edit of came) this.lastOrder = Math.max(this.lastOrder, edit.order)
    if (gone.length === 0 && came.length === 0) return
    line.edits = [...line.edits.filter(edit => !gone.includes(edit)), ...came].sort((a, b) => a.order - b.order)
    if (line.met && !line.edits.some(edit => edit.key === line.met!.edit.key)) line.met = null
    if (gone.length > 0) for (const { sentElsewhere } of this.listeners) sentElsewhere?.(document)
  }

  private keep(edits: readonly QueuedEdit[]): void {
    const document = edits[0]!.document
    this.write(
      this.parts.storage.put(edits).then(() => {
        const line = this.line(document)
        for (const edit of edits) {
          this.durable.add(edit.key)
          // Acknowledged before it was kept: it must not be found by the next page.
          if (!line.edits.some(e => e.key === edit.key)) this.write(this.parts.storage.remove([edit.key]), document)
        }
      }),
      document,
    )
  }

  private write(work: Promise<unknown>, document: string): void {
    const told = work
      .then(
        () => {
          this.parts.announce(document)
        },
        () => {
          this.onlyHere = true
        },
      )
      .finally(() => {
        this.writing.delete(told)
        this.tell(document)
      })
    this.writing.add(told)
  }

  /** Resolves when everything asked of the storage so far is on disk. */
  async kept(): Promise<void> {
    while (this.writing.size > 0) await Promise.all(this.writing)
  }

  private drop(line: Line, document: string, keys: readonly string[]): void {
    const gone = new Set(keys)
    for (const key of keys) this.done.add(key)
    line.edits = line.edits.filter(edit => !gone.has(edit.key))
    this.write(this.parts.storage.remove(keys), document)
    this.tell(document)
  }

  private putAside(line: Line, document: string, edit: QueuedEdit, sentence: string): void {
    const refused: SetAsideEdit = { ...edit, sentence }
    line.edits = line.edits.filter(e => e.key !== edit.key)
    this.aside = [...this.aside, refused]
    this.write(this.parts.storage.setAside(refused), document)
    for (const listener of this.listeners) listener.refused?.(refused)
    this.tell(document)
  }

  private tell(document: string): void {
    for (const { changed } of [...this.listeners]) changed?.(document)
  }

  /** Sends what waits of a document until nothing does, waiting in between while it cannot be sent. */
  private async drive(document: string): Promise<void> {
    const line = this.line(document)
    if (line.driving) return
    line.driving = true
    let pauseMs = firstPauseMs
    try {
      while (line.edits.length > 0 && !line.met) {
        const wait = await this.parts.exclusively(document, async () => {
          this.adopt(document, await this.parts.storage.of(document).catch(() => line.edits))
          // What was sent is out of the storage before another tab looks there.
          return this.sendUntilStopped(document, line).finally(() => this.kept())
        })
        if (!wait) {
          pauseMs = firstPauseMs
          continue
        }
        line.why = wait.why
        this.tell(document)
        await this.parts.pause(
          wait.afterMs ?? pauseMs,
          new Promise(done => {
            line.wake = done
          }),
        )
        line.wake = null
        pauseMs = Math.min(pauseMs * 2, longestPauseMs)
      }
    } finally {
      line.driving = false
      line.why = null
      this.tell(document)
    }
  }

  /** The edits that may go together: those at the front that were typed at one place on one revision. */
  private batch(line: Line): readonly QueuedEdit[] {
    const first = line.edits[0]!
    const most = line.singly > 0 ? 1 : this.parts.most
    const end = line.edits.findIndex(edit => edit.base !== first.base || originOf(edit) !== originOf(first))
    return line.edits.slice(0, Math.min(most, end < 0 ? line.edits.length : end))
  }

  /** Resolves to why it must wait, or null when all is sent or a choice is wanted. */
  private async sendUntilStopped(document: string, line: Line): Promise<Extract<SendOutcome, { kind: 'wait' }> | null> {
    while (line.edits.length > 0 && !line.met) {
      const batch = this.batch(line)
      line.inFlight = new Set(batch.map(edit => edit.key))
      this.tell(document)
      const outcome = await this.parts.send(document, batch).finally(() => {
        line.inFlight = new Set()
      })
      if (outcome.kind === 'wait') return outcome
      line.why = null
      if (outcome.kind === 'accepted') {
        line.singly = Math.max(0, line.singly - batch.length)
        const sent = new Set(batch.map(edit => edit.key))
        line.edits = line.edits.filter(edit => !sent.has(edit.key))
        for (const { accepted } of this.listeners) accepted?.(document, batch, outcome.reply)
        this.drop(
          line,
          document,
          batch.map(edit => edit.key),
        )
      }
      // One of several was the reason, so that none of them was written: one by one, the others are.
      else if (batch.length > 1) {
        line.singly = batch.length
      } else if (outcome.kind === 'refused') {
        line.singly = Math.max(0, line.singly - 1)
        this.putAside(line, document, batch[0]!, outcome.sentence)
      } else {
        line.met = { edit: batch[0]!, sentence: outcome.sentence, meetings: outcome.meetings, onTop: outcome.onTop }
        this.tell(document)
      }
    }
    return null
  }
}
