import { describe, expect, it } from 'vitest'
import type { JournalReply } from '#shared/schemas/api'
import type { ToldEntry } from '#shared/schemas/journal'
import { shownJournal } from './shown-journal'

const entry = (seq: number): ToldEntry => ({
  seq,
  at: '2026-11-01T10:00:00.000Z',
  kind: 'do',
  target: null,
  title: `entry ${seq}`,
  gramsBeforeG: null,
  gramsAfterG: null,
  auwBeforeG: 100,
  auwAfterG: 100,
  note: '',
  undone: 'in force',
  mark: '',
  topic: 'parts',
})
const pageSize = 3

/** A journal of so many entries, asked page by page; every answer waits until it is let go. */
function kept(count: number) {
  const asked: string[] = []
  const waiting: (() => void)[] = []
  let [open, building] = [true, 'b' as string | null]
  const journal = shownJournal(
    () => building,
    path =>
      new Promise<Pick<JournalReply, 'entries' | 'earlier'>>(done => {
        asked.push(path)
        const query = new URL(path, 'http://here').searchParams
        const before = Number(query.get('before') ?? Infinity)
        const title = `about ${query.get('topic') ?? query.get('words') ?? 'anything'}`
        const all = Array.from({ length: count }, (_, i) => ({ ...entry(count - i), title })).filter(
          one => one.seq < before,
        )
        const answer = () => done({ entries: all.slice(0, pageSize), earlier: all.length > pageSize })
        if (open) answer()
        else waiting.push(answer)
      }),
  )
  return {
    ...{ journal, asked },
    seqs: () => journal.entries.value.map(({ seq }) => seq),
    hold: () => (open = false),
    letGo: () => waiting.splice(0).forEach(answer => answer()),
    goTo: (id: string | null) => (building = id),
  }
}

describe('the journal as it is shown', () => {
  it('comes page by page, and again as far back as it was', async () => {
    const { journal, seqs, asked } = kept(8)
    await journal.load()
    expect([seqs(), journal.hasEarlier.value]).toEqual([[8, 7, 6], true])
    await journal.loadEarlier()
    await journal.loadEarlier()
    expect([seqs(), journal.hasEarlier.value]).toEqual([[8, 7, 6, 5, 4, 3, 2, 1], false])
    asked.length = 0
    await journal.load()
    expect(seqs()).toEqual([8, 7, 6, 5, 4, 3, 2, 1])
    expect(asked).toHaveLength(3)
  })
  it('asked for its next page twice at once, it shows it once', async () => {
    const { journal, seqs, hold, letGo } = kept(8)
    await journal.load()
    hold()
    const both = [journal.loadEarlier(), journal.loadEarlier()]
    letGo()
    await Promise.all(both)
    expect(seqs()).toEqual([8, 7, 6, 5, 4, 3])
  })
  it.each(['load', 'loadEarlier'] as const)('of a build that was left meanwhile shows nothing (%s)', async how => {
    const { journal, seqs, hold, letGo, goTo } = kept(8)
    await journal.load()
    hold()
    const late = journal[how]()
    goTo('other')
    journal.reset()
    letGo()
    await late
    expect([seqs(), journal.hasEarlier.value]).toEqual([[], false])
  })
  it('of an earlier search never takes the place of a later one', async () => {
    const { journal, asked, hold, letGo } = kept(2)
    hold()
    const first = journal.search('grams', '')
    const second = journal.search('', 'motor & mount')
    letGo()
    await Promise.all([first, second])
    expect(asked).toEqual(['/api/builds/b/journal?topic=grams', '/api/builds/b/journal?words=motor+%26+mount'])
    expect(journal.filter.value).toEqual({ topic: '', words: 'motor & mount' })
    expect(journal.entries.value.map(({ title }) => title)).toEqual(['about motor & mount', 'about motor & mount'])
  })
  it('takes what is written on top, unless only some of it is shown, or none', async () => {
    const { journal, seqs } = kept(2)
    journal.add([entry(3)])
    expect(seqs()).toEqual([])
    await journal.load()
    journal.add([entry(3), entry(4)])
    expect(seqs()).toEqual([4, 3, 2, 1])
    await journal.search('grams', '')
    journal.add([entry(5)])
    expect(seqs()).toEqual([2, 1])
  })
  it('tells marks and reasons of one entry', async () => {
    const { journal } = kept(2)
    await journal.load()
    journal.marked(2, 'maiden')
    journal.noted(1, 'it rattled')
    expect(journal.entries.value.map(({ mark, note }) => [mark, note])).toEqual([
      ['maiden', ''],
      ['', 'it rattled'],
    ])
  })
  it('without a build there is nothing to ask', async () => {
    const { journal, asked, goTo } = kept(2)
    goTo(null)
    await journal.load()
    await journal.loadEarlier()
    expect(asked).toEqual([])
  })
})
