import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../core/changes/commands'
import { blankAim, makeLine, makeMass } from '../../core/model/ledger'
import { ListingBiasTable } from '../../core/mass/listings'
import type { Build } from '../../core/model/ledger'
import marzipanFile from '../../demo/builds/marzipan.build.json'
import { startingCards } from '../../core/limits/rules'
import type { Lessons } from '../../core/aircraft/flown'
import { buildSheet, type TaughtByCrash } from './build-sheet'

const build = makeBuild({
  id: 'b',
  name: 'A | B *bold*',
  aim: { ...blankAim(), purposeKind: 'other', cardIds: ['jp-100', 'us-other'] },
  lines: [
    makeLine({
      id: 'f',
      slot: 'frame',
      name: 'Plate | with `marks`',
      quantity: 2,
      priceEachCents: 1050,
      mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 12.5, ownSpreadG: 0 }),
    }),
    makeLine({ id: 's', slot: 'strap', name: 'Strap' }),
  ],
  setups: [{ id: 's', name: 'as built', lineIds: [] }],
  flies: { setupId: 's', packLineId: null },
})

describe('the build sheet', () => {
  const sheet = buildSheet(build, startingCards, new ListingBiasTable(), { currency: '€', ounces: false })
  it('adds up as by hand and says what is open', () => {
    expect(sheet).toContain('**25.00 g** all-up (as built · no pack)')
    expect(sheet).toContain('Fitted parts cost at least 21.00 €.')
    expect(sheet).toContain('| Strap | Strap | 1 | open |  |  |')
  })
  it('is not clear while a line has no grams, and a card without a limit has no verdict', () => {
    expect(sheet).toContain('Japan: less than 100 g. **Too close to call**')
    expect(sheet).toContain('whatever it weighs. No limit by weight.')
    // The same duty is told where its card follows from the answers without being ticked; a card of another purpose says nothing.
    const paid = buildSheet(
      { ...build, aim: { ...build.aim, places: ['United States'], cardIds: ['us-recreation'] } },
      startingCards,
      new ListingBiasTable(),
      { currency: '€', ounces: true },
    )
    expect(paid).toContain('whatever it weighs. No limit by weight: register the aircraft whatever it weighs')
    expect(paid).not.toContain('0.55 lb')
    // 25 g are 0.88 ounces.
    expect(paid).toContain('**25.00 g (0.88 oz)** all-up')
    expect(sheet).not.toContain(' oz')
  })
  it('says of what is no craft yet that nothing flies, not that there is no limit', () => {
    const strap = makeLine({
      id: 's',
      slot: 'strap',
      name: 'Strap',
      mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 3, ownSpreadG: 0 }),
    })
    const alone = buildSheet({ ...build, lines: [strap] }, startingCards, new ListingBiasTable(), {
      currency: '€',
      ounces: false,
    })
    expect(alone).toContain('less than 100 g. Nothing that flies yet.')
    expect(alone).toContain('Japan: Nothing that flies yet')
  })
  it('lets no name break the table', () => {
    expect(sheet).toContain('Plate \\| with \\`marks\\`')
    for (const row of sheet.split('\n').filter(text => text.startsWith('| Frame')))
      expect(row.replace(/\\\|/g, '').match(/\|/g)).toHaveLength(7)
  })
  it('draws the craft from above and from the left, and says where it hangs', () => {
    const marzipan = marzipanFile.build as unknown as Build
    const drawnSheet = buildSheet(marzipan, startingCards, new ListingBiasTable(), { currency: '€', ounces: false })
    expect(drawnSheet).toMatch(
      /Centre of gravity 1\.1 ± \d\.\d mm behind the middle of the motors, 0\.\d ± \d\.\d mm to the/,
    )
    expect(drawnSheet).toMatch(/The front of P7 belongs \d+\.\d mm behind the front edge of the tray\./)
    const pictures = [...drawnSheet.matchAll(/!\[From [^\]]*\]\(data:image\/svg\+xml,([^)]*)\)/g)]
    const drawings = pictures.map(([, text]) => decodeURIComponent(text!))
    expect(drawings).toHaveLength(2)
    for (const drawing of drawings) {
      expect(drawing).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg" [^>]*viewBox="[-\d. ]+"/)
      expect(drawing).toContain('>P7</text>')
      expect(drawing).not.toMatch(/NaN|undefined|Infinity/)
    }
    // Four motors and four props are round from above, and boxes from the side.
    expect(drawings[0]!.match(/<ellipse/g)!.length).toBeGreaterThanOrEqual(8)
    expect(drawings[1]).not.toContain('<ellipse')
    expect(sheet).not.toContain('NaN')
  })
})

describe('flights in the build sheet', () => {
  const marzipan = marzipanFile.build as unknown as Build
  const said: Lessons['said'] = [
    { buildId: marzipan.id, drive: 'd', style: 'cruise', efficiency: 0.38, lnKappa: 1.5, u: 0.05, flights: 7 },
  ]
  const written = (lessons: Lessons | null, crashes: readonly TaughtByCrash[]) =>
    buildSheet(marzipan, startingCards, new ListingBiasTable(), { currency: '€', ounces: false }, [], lessons, crashes)
  it('say on how many the minutes rest, and what was learnt; without them neither is there', () => {
    const sheet = written({ buildId: marzipan.id, said, packs: {} }, [
      { at: '2026-11-06T16:02', kind: 'crash', lesson: 'Turn away from the sun.' },
    ])
    expect(sheet).toContain('Minutes rest on 7 flights.')
    expect(sheet).toContain('## What was learnt\n\n- 2026-11-06, crash: Turn away from the sun.')
    const before = written(null, [])
    expect(before).not.toContain('Minutes rest')
    expect(before).not.toContain('What was learnt')
    // The minutes themselves are others.
    const minutes = (text: string) => /\| ([\d.]+–[\d.]+ min) \|/.exec(text)![1]
    expect(minutes(sheet)).not.toBe(minutes(before))
  })
})
