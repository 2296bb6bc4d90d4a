import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LineSplitter, longestLine, parseReading, steadiness, type TimedReading } from './index'

describe('a line from a scale', () => {
  it.each([
    ['S S     17.02 g', 17.02, 'stable'],
    ['S D     17.0 g', 17, 'unstable'],
    ['S S    -0.01 g', -0.01, 'stable'],
    ['ST,GS,+  17.02g', 17.02, 'stable'],
    ['US,NT,-   3.1 g', -3.1, 'unstable'],
    ['17.02 g', 17.02, null],
    ['17,02g', 17.02, null],
    ['  +0.5 oz ', 14.1747615625, null],
  ] as const)('“%s”', (line, massG, marked) => {
    const read = parseReading(line)
    expect(read?.massG).toBeCloseTo(massG, 9)
    expect(read).toMatchObject({ marked, overload: false })
  })
  it('keeps the step of the last digit', () => {
    expect(parseReading('S S 17.020 g')?.stepG).toBe(0.001)
    expect(parseReading('0.5 oz')?.stepG).toBeCloseTo(2.8349523125, 9)
  })
  it.each(['S +', 'S -', 'OL,GS,+9999.99g', 'OL', 'overload', '------'])('“%s” is overload', line => {
    expect(parseReading(line)).toMatchObject({ overload: true, massG: null })
  })
  it.each([
    '',
    'hello',
    '17.02',
    'S S g',
    'ST,GS,1e5g',
    '99999 g',
    '12.3.4 g',
    'S S 17.02 kg',
    `${'9'.repeat(200)} g`,
    '<b>1 g</b>',
  ])('“%s” is no reading', line => {
    expect(parseReading(line)).toBeNull()
  })
  it('whatever comes, nothing throws and nothing but finite grams comes out', () => {
    let readings = 0
    const nearly = fc
      .tuple(
        fc.constantFrom('', 'S S ', 'S D ', 'US,GS,', 'ST,', '?'),
        fc.constantFrom('', '+', '-', '- '),
        fc.oneof(
          fc.nat(900_000).map(milligrams => String(milligrams / 1000)),
          fc.constantFrom('7e308', '', '1,5', '1.2.3'),
        ),
        fc.constantFrom('', 'g', ' g', ' kg', ' oz', ' lb', '?'),
      )
      .map(parts => parts.join(''))
    fc.assert(
      fc.property(fc.oneof(fc.string(), nearly), line => {
        const read = parseReading(line)
        if (!read || read.overload) return
        readings++
        expect(Number.isFinite(read.massG)).toBe(true)
      }),
      { numRuns: 2000 },
    )
    expect(readings).toBeGreaterThan(50)
  })
})

describe('a stream of characters', () => {
  it('is cut into the same lines however it arrives', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('S S 1.00 g', 'US,GS,+2.0g', '3 g'), { minLength: 1 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1 }),
        (lines, cuts) => {
          const text = lines.map(line => `${line}\r\n`).join('')
          const splitter = new LineSplitter()
          const out: string[] = []
          for (let from = 0, i = 0; from < text.length; i++) {
            const size = cuts[i % cuts.length]!
            out.push(...splitter.push(text.slice(from, from + size)))
            from += size
          }
          expect(out).toEqual(lines)
        },
      ),
    )
  })
  it('a line of a megabyte is thrown away, and the next one is read', () => {
    const splitter = new LineSplitter()
    const lines: string[] = []
    for (let i = 0; i < 1000; i++) lines.push(...splitter.push('x'.repeat(1000)))
    lines.push(...splitter.push('\nS S 1.00 g\n'))
    expect(lines).toEqual(['S S 1.00 g'])
    expect(splitter.tooLong).toBe(1)
    expect(longestLine).toBeLessThan(200)
  })
})

describe('steadiness', () => {
  const every100ms = (grams: readonly (number | null)[], more: Partial<TimedReading> = {}): TimedReading[] =>
    grams.map((massG, i) => ({ massG, stepG: 0.01, marked: null, overload: massG === null, atMs: i * 100, ...more }))
  const rest = Array<number>(15).fill(17.02)
  it('five readings over just a second are enough; four, or a tenth less, are not', () => {
    const spread = (count: number, overMs: number) =>
      every100ms(Array<number>(count).fill(17.02)).map((r, i) => ({ ...r, atMs: (i * overMs) / (count - 1) }))
    expect(
      [
        [5, 1000],
        [4, 1000],
        [5, 990],
        [9, 1050],
      ].map(([count, overMs]) => steadiness(spread(count!, overMs!), 0.01).steady),
    ).toEqual([true, false, false, true])
  })
  it('needs five readings over a second within one step', () => {
    expect(steadiness(every100ms([0, 8, 16, ...rest]), 0.01)).toMatchObject({
      steady: true,
      displayG: 17.02,
      forS: 1.4,
      reason: '',
    })
    expect(steadiness(every100ms(rest.slice(0, 9)), 0.01).steady).toBe(false)
    expect(
      steadiness(
        every100ms([17.02, 17.02, 17.02], {}).map((r, i) => ({ ...r, atMs: i * 600 })),
        0.01,
      ).steady,
    ).toBe(false)
  })
  it('allows one step of flicker and takes what was shown most', () => {
    const flicker = every100ms([...rest, 17.03, 17.02, 17.03, 17.02])
    expect(steadiness(flicker, 0.01)).toMatchObject({ steady: true, displayG: 17.02 })
    expect(steadiness(every100ms([...rest, 17.04]), 0.01).steady).toBe(false)
  })
  it('refuses what the scale itself calls moving, and overload, with the reason', () => {
    expect(steadiness(every100ms(rest, { marked: 'unstable' }), 0.01).reason).toContain('still moving')
    expect(steadiness(every100ms([...rest, null]), 0.01).reason).toContain('two lifts')
    expect(steadiness([], 0.01).reason).toContain('No reading')
    expect(steadiness(every100ms([...rest.slice(0, 5), null, ...rest.slice(0, 8)]), 0.01).steady).toBe(false)
  })
})
