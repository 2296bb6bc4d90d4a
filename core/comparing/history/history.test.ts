import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { foldRuns, momentsToDraw, type Foldable } from './index'

const entry = (title: string, more: Partial<Foldable> = {}): Foldable => ({
  title,
  topic: 'balance',
  note: '',
  mark: '',
  undone: 'in force',
  kind: 'do',
  gramsBeforeG: null,
  gramsAfterG: null,
  ...more,
})

describe('runs of small entries', () => {
  it('of one thing fold from three on; what somebody said of, took back, or weighed stands alone', () => {
    const pieces = [1, 2, 3].map(mm => entry(`Camera: ${mm} mm forward`))
    expect(foldRuns([...pieces, entry('Pack: moved')]).map(run => run.length)).toEqual([3, 1])
    expect(foldRuns(pieces.slice(1)).map(run => run.length)).toEqual([1, 1])
    const alone = [
      { note: 'why' },
      { mark: 'maiden' },
      { undone: 'taken back' },
      { gramsAfterG: 2 },
      { topic: 'weighings' },
    ]
    for (const more of alone)
      expect(
        foldRuns([pieces[0]!, entry('Camera: 4 mm forward', more), ...pieces.slice(1)]).length,
        JSON.stringify(more),
      ).toBe(4)
    expect(foldRuns([1, 2, 3].map(mm => entry(`Moved the pack ${mm} mm`))).length).toBe(1)
  })
  it('put together again are the entries, in their order', () => {
    const titles = fc.constantFrom('Camera: a', 'Camera: b', 'Pack: a', 'Moved 1 mm', 'Moved 2 mm')
    let folded = 0
    fc.assert(
      fc.property(fc.array(titles, { minLength: 10, maxLength: 40 }), all => {
        const entries = all.map(title => entry(title))
        const runs = foldRuns(entries)
        expect(runs.flat()).toEqual(entries)
        if (runs.some(run => run.length > 2)) folded++
      }),
      { numRuns: 1000, examples: [[[]]] },
    )
    expect(folded).toBeGreaterThan(100)
  })
})

describe('the moments a journal is drawn at', () => {
  const moments = (count: number, perDay: number) =>
    Array.from({ length: count }, (_, i) => ({
      seq: i,
      at: new Date(Date.UTC(2026, 0, 1 + Math.floor(i / perDay), 10, i % perDay)).toISOString(),
    }))
  it('are all of a short one', () => expect(momentsToDraw(moments(50, 3), 200)).toEqual(moments(50, 3)))
  it('of a long one are not too many, in order, with both ends, whatever it is like', () => {
    fc.assert(
      fc.property(fc.integer({ min: 201, max: 3000 }), fc.integer({ min: 1, max: 50 }), (count, perDay) => {
        const all = moments(count, perDay)
        const drawn = momentsToDraw(all, 200)
        expect(drawn.length).toBeLessThanOrEqual(200)
        expect(drawn.length).toBeGreaterThan(90)
        expect([drawn[0], drawn.at(-1)]).toEqual([all[0], all.at(-1)])
        expect(drawn.every((one, i) => i === 0 || one.seq > drawn[i - 1]!.seq)).toBe(true)
      }),
      { numRuns: 60 },
    )
  })
})
