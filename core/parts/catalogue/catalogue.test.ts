import { describe, expect, it } from 'vitest'
import { slots, type Line } from '../../model/ledger'
import { isNotRead } from '../../text/units'
import { propertyNamed, propertyText, readProperty } from '../../model/properties'
import { screwForm, screwG } from '../../mass/mass-calculators'
import { ListingBiasTable } from '../../mass/listings'
import { LineEstimates } from '../../mass/loadout'
import { spreadG } from '../../maths/estimate'
import {
  classAnswered,
  classInDoubt,
  craftPresets,
  presetLines,
  typicalSundries,
  withLearntSundries,
  typicalClasses,
  typicalMasses,
  typicalProperties,
} from './index'

describe('the starter catalogue', () => {
  it('has a sane range and a known slot in every row', () => {
    for (const typical of typicalMasses) {
      expect(slots).toContain(typical.slot)
      expect(typical.lowG).toBeGreaterThan(0)
      expect(typical.highG).toBeGreaterThan(typical.lowG)
    }
    expect(typicalClasses('motor')[0]?.class).toBe('0702')
  })
  it.each(craftPresets.map(p => p.name))('%s gives a plan with total, pack, solder and spread', name => {
    let n = 0
    const lines = presetLines(name, () => `id${n++}`)
    expect(new Set(lines.map(l => l.id)).size).toBe(lines.length)
    for (const slot of ['frame', 'motor', 'propeller', 'board', 'pack'] as const)
      expect(lines.some(l => l.slot === slot)).toBe(true)
    expect(lines.some(l => /solder/i.test(l.name))).toBe(true)
    const table = new LineEstimates(new ListingBiasTable())
    for (const line of lines) expect(spreadG(table.of(line))).toBeGreaterThan(0)
  })
  it('says of a propeller and a motor what their class name says', () => {
    expect(typicalProperties('propeller', '3 in three-blade')).toEqual({ diameterMm: 76.2, blades: 3 })
    expect(typicalProperties('propeller', '31 mm')).toEqual({ diameterMm: 31 })
    expect(typicalProperties('motor', '1404')).toEqual({ statorDiameterMm: 14, statorHeightMm: 4 })
    expect(typicalProperties('camera', 'digital nano')).toEqual({ videoFamily: 'digital' })
    expect(typicalProperties('board', 'all-in-one 2-4S 12-20 A')).toEqual({
      cellsMin: 2,
      cellsMax: 4,
      ampsContinuous: 12,
      provides: ['speed controller'],
    })
    expect(typicalProperties('board', 'all-in-one 1S')).toEqual({
      cellsMin: 1,
      cellsMax: 1,
      provides: ['speed controller', 'receiver'],
    })
    expect(typicalProperties('power lead', '30 A class plug and 16-18 AWG')).toEqual({ awg: 18, plug: '30 A class' })
    expect(typicalProperties('capacitor', '220-470 uF 25-35 V')).toEqual({ capacitanceUf: 220, ratedV: 25 })
    expect(typicalProperties('frame', '3.5-inch freestyle')).toEqual({ propMaxMm: 88.9 })
    expect(typicalProperties('strap', 'rubber ring')).toBeNull()
    for (const preset of craftPresets)
      expect(
        presetLines(preset.name, () => 'x').find(line => line.slot === 'propeller')!.properties!.diameterMm,
      ).toBeGreaterThan(20)
  })
  it('every property of a typical class is one its kind has, and a reader would take it', () => {
    for (const typical of typicalMasses) {
      for (const [key, value] of Object.entries(typicalProperties(typical.slot, typical.class) ?? {})) {
        const read = readProperty(propertyNamed(typical.slot, key)!, propertyText(value))
        expect(isNotRead(read) ? read.problem : read.value, `${typical.slot} ${typical.class} ${key}`).toEqual(value)
      }
    }
  })
  it('small things suit the size of the craft: screws, solder and tape are a few hundredths of it, never a tenth', () => {
    let n = 0
    for (const preset of craftPresets) {
      const lines = presetLines(preset.name, () => `x${++n}`)
      const grams = (of: readonly Line[]) =>
        of.reduce((sum, line) => sum + (line.mass!.valueG / line.mass!.valueCount) * line.quantity, 0)
      const small = lines.filter(line => line.slot === 'other' || line.slot === 'screw')
      expect(grams(small) / grams(lines), preset.name).toBeGreaterThan(0.01)
      expect(grams(small.filter(line => line.slot === 'other')) / grams(lines), preset.name).toBeLessThan(0.03)
      expect(
        lines
          .filter(line => line.slot === 'screw')
          .every(line => line.mass!.evidence === 'worked out' && line.properties !== null),
        preset.name,
      ).toBe(true)
      expect(
        lines.every(line => !/guess/.test(line.name) || line.mass!.evidence === 'guess'),
        preset.name,
      ).toBe(true)
    }
    // 8 joints of 0.02 g, half more or less; screws a quarter more or less.
    const tiny = presetLines('65 mm ducted', () => 'x')
    expect(tiny.find(line => line.name.includes('older'))!.mass).toMatchObject({ valueG: 0.16, ownSpreadG: 0.08 })
    for (const { mass, quantity } of tiny.filter(line => line.slot === 'screw'))
      expect(mass!.ownSpreadG! / ((mass!.valueG / mass!.valueCount) * quantity)).toBeCloseTo(0.25, 3)
    // 16 × M2 × 6 button of alloy steel.
    const screws = presetLines('3-inch ultralight', () => 'x').find(line => line.slot === 'screw')!
    expect(screws.mass!.valueG).toBeCloseTo(screwG(screwForm('M2', 'button'), 6, 7.85), 4)
  })
  it('a class whose frame the facts do not have has a guessed one, and it says so', () => {
    const ducted = presetLines('3-inch ducted', () => 'x').find(line => line.slot === 'frame')!
    expect(ducted).toMatchObject({ name: 'Frame with ducts, 3-inch (guessed)', mass: { evidence: 'guess' } })
    expect(craftPresets.map(preset => preset.name)).toEqual(
      expect.arrayContaining([
        '85 mm ducted',
        '2.5-inch ducted',
        '3-inch ducted',
        '3.5-inch ducted',
        '5-inch ultralight',
      ]),
    )
  })
  it('a part of a class that is renamed is asked about once: whether the facts of the class still hold', () => {
    const motor = presetLines('3-inch ultralight', () => 'x').find(line => line.slot === 'motor')!
    expect(classInDoubt(motor)).toBeNull()
    const renamed = { ...motor, name: 'Ostler 1303.5' }
    expect(classInDoubt(renamed)).toBe('1404')
    const held = { ...renamed, ...classAnswered(renamed, '1404', true, 'v') }
    expect([classInDoubt(held), held.properties, held.mass!.valueG]).toEqual([
      null,
      motor.properties,
      motor.mass!.valueG,
    ])
    const own = { ...renamed, properties: { ...renamed.properties, kv: 3800 } }
    const away = { ...own, ...classAnswered(own, '1404', false, 'v') }
    expect([classInDoubt(away), away.properties]).toEqual([null, { kv: 3800 }])
    expect(classInDoubt({ ...renamed, mass: { ...renamed.mass!, evidence: 'listed' } })).toBeNull()
  })
  it('refuses a class it does not have', () => {
    expect(() => presetLines('9-inch lifter', () => 'x')).toThrow('craftClass')
  })
})

describe('what a class has of solder and tape', () => {
  it('is a share of its typical dry mass with a range; a name that goes on from a class is that class', () => {
    for (const { name } of craftPresets) {
      const { mu, tau } = typicalSundries(name)
      expect(mu, name).toBeGreaterThan(0.003)
      expect(mu, name).toBeLessThan(0.12)
      expect(tau, name).toBeGreaterThan(0)
      expect(typicalSundries(`${name}, 4S`)).toEqual({ mu, tau })
    }
    expect(typicalSundries('something of my own').mu).toBeGreaterThan(0.003)
  })
  it('gives way to what was learnt: one line, which says on how many builds it rests', () => {
    let n = 0
    const lines = presetLines('65 mm ducted', () => `i${n++}`)
    const learnt = withLearntSundries(lines, { valueG: 0.42, sigmaG: 0.1, builds: 3 }, () => `i${n++}`)
    const mine = learnt.filter(({ slot }) => slot === 'other')
    expect(mine).toHaveLength(1)
    expect(mine[0]!.mass).toMatchObject({ valueG: 0.42, evidence: 'typical', origin: 'learnt from 3 finished builds' })
    expect(mine[0]!.mass!.halfRangeG).toBeCloseTo(0.1732, 4)
    expect(learnt.filter(({ slot }) => slot !== 'other')).toEqual(lines.filter(({ slot }) => slot !== 'other'))
  })
})
