import { ref, shallowRef } from 'vue'
import type { Topic } from '#core/changes/commands'
import type { JournalReply } from '#shared/schemas/api'
import type { ToldEntry } from '#shared/schemas/journal'

/** Which entries of a journal are shown: about what, and with which words. */
export interface JournalFilter {
  readonly topic: Topic | ''
  readonly words: string
}
const everything: JournalFilter = { topic: '', words: '' }

type Page = Pick<JournalReply, 'entries' | 'earlier'>

/** Where a page of a journal lies: the newest one, or the one before an entry. */
function pathOf(id: string, { topic, words }: JournalFilter, before: number | null): string {
  const query = new URLSearchParams({
    ...(before === null ? {} : { before: String(before) }),
    ...(topic === '' ? {} : { topic }),
    ...(words === '' ? {} : { words }),
  })
  return `/api/builds/${encodeURIComponent(id)}/journal?${query}`
}

/** The journal of the build that `buildId` names, as far as it is shown: page by page, newest first. `ask` fetches a page. */
export function shownJournal(buildId: () => string | null, ask: (path: string) => Promise<Page>) {
  const entries = shallowRef<readonly ToldEntry[]>([])
  const filter = shallowRef<JournalFilter>(everything)
  /** Whether there are entries before those shown. */
  const hasEarlier = ref(false)

  const page = (id: string, before: number | null) => ask(pathOf(id, filter.value, before))

  /** Fetches it anew, as far back as it was shown before. */
  async function load(): Promise<void> {
    const id = buildId()
    if (id === null) return
    const oldest = entries.value.at(-1)?.seq ?? Infinity
    const found: ToldEntry[] = []
    const wanted = filter.value
    let more = true
    while (more && (found.length === 0 || found.at(-1)!.seq > oldest)) {
      const { entries, earlier } = await page(id, found.at(-1)?.seq ?? null)
      found.push(...entries)
      more = earlier
    }
    if (buildId() !== id || filter.value !== wanted) return
    entries.value = found
    hasEarlier.value = more
  }

  /** Fetches the page before the oldest entry shown. */
  async function loadEarlier(): Promise<void> {
    const last = entries.value.at(-1)
    const id = buildId()
    if (!last || id === null) return
    const reply = await page(id, last.seq)
    // Somebody may have pressed twice, or gone on to another build.
    if (buildId() !== id || entries.value.at(-1)?.seq !== last.seq) return
    entries.value = [...entries.value, ...reply.entries]
    hasEarlier.value = reply.earlier
  }

  const change = (seq: number, fields: Partial<ToldEntry>) => {
    entries.value = entries.value.map(entry => (entry.seq === seq ? { ...entry, ...fields } : entry))
  }

  return {
    entries,
    filter,
    hasEarlier,
    load,
    loadEarlier,
    /** Shows only entries about something, or with some words. */
    async search(topic: Topic | '', words: string): Promise<void> {
      filter.value = { topic, words }
      entries.value = []
      await load()
    },
    /** What was just written comes on top, where the journal is shown and all of it is. */
    add(made: readonly ToldEntry[]): void {
      const { topic, words } = filter.value
      if (entries.value.length > 0 && topic === '' && words === '')
        entries.value = [...[...made].reverse(), ...entries.value]
    },
    /** A moment of the journal has a name now. */
    marked: (seq: number, mark: string) => change(seq, { mark }),
    /** An entry has a reason now. */
    noted: (seq: number, note: string) => change(seq, { note }),
    reset(): void {
      entries.value = []
      filter.value = everything
      hasEarlier.value = false
    },
  }
}
