import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { slots } from '../ledger'
import { isNotRead } from '../../text/units'
import {
  meetingPatterns,
  parsePattern,
  propertiesOf,
  propertyNamed,
  propertyText,
  rangeWords,
  readBenchTable,
  readProperty,
  turnBetween,
  type Property,
} from './index'

const pattern = (text: string) => parsePattern(text)!
const read = (slot: Parameters<typeof propertyNamed>[0], key: string, text: string) =>
  readProperty(propertyNamed(slot, key)!, text)

describe('hole patterns', () => {
  it.each([
    ['12×12 M2', '12x12', 0],
    ['12×12', '0.4724 in × 0.4724 in', 0],
    ['12×16', '16×12 M2', 90],
    ['25.5×25.5', '1.004 in x 1.004 in', 0],
    ['4 on 9 M2', '6.364×6.364', 45],
    ['3 on 6.6', '3 holes on 6.6 mm', 0],
    ['1.2 cm × 1.2 cm', '12×12', 0],
    ['25,5×25,5', '25.5×25.5', 0],
  ])('%s meets %s, turned by %d°', (a, b, turn) => {
    const found = turnBetween(pattern(a), pattern(b))
    expect(found).not.toBeNull()
    expect(Math.min(Math.abs(found! - turn), 360 - Math.abs(found! - turn))).toBeLessThan(0.5)
  })
  it.each([
    ['12×12', '9×9'],
    ['16×16', '20×20'],
    ['12×16', '12×12'],
    ['3 on 6.6', '4 on 6.6'],
    ['25.5×25.5', '26.5×26.5'],
  ])('%s does not meet %s at any turn', (a, b) => expect(turnBetween(pattern(a), pattern(b))).toBeNull())
  it('meet themselves however they are turned: two patterns meet either way round or not at all', () => {
    const size = fc.integer({ min: 20, max: 400 }).map(n => n / 10)
    fc.assert(
      fc.property(size, size, size, size, (a, b, c, d) => {
        const [one, other] = [pattern(`${a}×${b}`), pattern(`${c}×${d}`)]
        expect(turnBetween(one, one)).not.toBeNull()
        expect(turnBetween(one, pattern(`${b}×${a}`))).not.toBeNull()
        expect(turnBetween(one, other) === null).toBe(turnBetween(other, one) === null)
      }),
    )
  })
  it('of several, the first that meet are given with their thread', () => {
    expect(meetingPatterns(['9×9 M2', '12×12 M2'], ['16×16', '12×12 M2.5'])).toMatchObject({
      mine: { thread: 'M2' },
      theirs: { thread: 'M2.5' },
      turnDeg: 0,
    })
    expect(meetingPatterns(['9×9'], ['12×12'])).toBeNull()
  })
  it.each(['', '12', '12 by 12', '0×0', '4 on 0', '1 on 9', '-3×4', '9999×9999'])('“%s” is none', text =>
    expect(parsePattern(text)).toBeNull(),
  )
})

describe('reading a property', () => {
  it.each([
    ['frame', 'propMaxMm', '3 in', 76.2],
    ['frame', 'freeHeightMm', '20', 20],
    ['frame', 'freeHeightMm', '2 cm', 20],
    ['motor', 'kv', '3850 kV', 3850],
    ['camera', 'drawA', '250 mA', 0.25],
    ['video transmitter', 'powerMw', '0.6 W', 600],
    ['capacitor', 'ratedV', '16 V', 16],
    ['aerial', 'bandLowMhz', '5.6 GHz', 5600],
    ['motor', 'resistanceMohm', '0,12 Ω', 120],
    ['power lead', 'awg', 'AWG 16'.replace('AWG ', ''), 16],
    ['pack', 'balanceLead', 'yes', true],
    ['motor', 'propMount', 'TWO SCREWS', 'two screws'],
  ] as const)('%s %s “%s” is %s', (slot, key, text, value) => expect(read(slot, key, text)).toEqual({ value }))

  const measures = slots.flatMap(slot =>
    propertiesOf(slot)
      .filter(p => p.kind === 'measure')
      .map(p => [slot, p.key, p] as const),
  )
  it.each(measures)('%s %s refuses what it cannot be, naming its unit', (_slot, _key, property) => {
    for (const wrong of [
      'x',
      '-1000000',
      '1e3',
      '12 parsecs',
      String(property.most * 10 + 1),
      'NaN',
      ...(property.whole ? ['2.5'] : []),
    ]) {
      const result = readProperty(property, wrong)
      expect(isNotRead(result) && result.problem).toBe(`${property.label} is ${rangeWords(property)}.`)
      if (property.unit) expect((result as { problem: string }).problem).toContain(property.unit)
    }
  })
  it.each([
    ['board', 'outputs', '5 volts'],
    ['board', 'outputs', '5 V 2 A; 5 V 1 A'],
    ['board', 'outputs', '500 V'],
    ['motor', 'pattern', '12'],
    ['board', 'provides', 'wings'],
    ['sounder', 'selfPowered', 'perhaps'],
    ['aerial', 'polarisation', 'up'],
    ['pack', 'boughtOn', '2026-02-30'],
    ['pack', 'boughtOn', 'last week'],
    ['pack', 'packState', 'swollen'],
    ['pack', 'chargeToV', '9 V'],
  ] as const)('%s %s refuses “%s” in a sentence', (slot, key, text) => {
    const result = read(slot, key, text)
    expect(isNotRead(result) && result.problem).toContain(propertyNamed(slot, key)!.label)
  })
  it('outputs are named by their volts or by a name of their own, in amps or milliamps', () => {
    expect(read('board', 'outputs', '5 V 2 A; camera 9 V 1500 mA; 3.3 V')).toEqual({
      value: [
        { name: '5 V', volts: 5, amps: 2 },
        { name: 'camera', volts: 9, amps: 1.5 },
        { name: '3.3 V', volts: 3.3, amps: null },
      ],
    })
  })
  const typed = (property: Property): fc.Arbitrary<string> => {
    switch (property.kind) {
      case 'measure':
        return fc
          .integer({ min: Math.ceil(property.least), max: Math.floor(property.most) })
          .filter(n => n >= property.least)
          .map(String)
      case 'choice':
        return fc.constantFrom(...property.choices)
      case 'yes':
        return fc.constantFrom('yes', 'no')
      case 'patterns':
        return fc.constantFrom('12×12 M2; 9×9', '4 on 9 M2')
      case 'outputs':
        return fc.constantFrom('5 V 2 A; camera 9 V 1.5 A', '3.3 V')
      case 'provides':
        return fc.constantFrom('receiver; sounder', 'speed controller')
      case 'bench':
        return fc.constant('20, 16.4, 0.7, 34\n100, 15.6, 11.6, 262')
      case 'day':
        return fc.constantFrom('2026-02-28', '2024-02-29')
      case 'text':
        return fc.constantFrom('digital', '2.4 GHz, wide')
    }
  }
  const all = slots.flatMap(slot => propertiesOf(slot).map(p => [slot, p.key, p] as const))
  it.each(all)('%s %s reads back what it writes', (_slot, _key, property) => {
    fc.assert(
      fc.property(typed(property), text => {
        const result = readProperty(property, text)
        if (isNotRead(result)) throw new Error(result.problem)
        expect(readProperty(property, propertyText(result.value))).toEqual(result)
      }),
      { numRuns: 20 },
    )
  })
})

describe('a bench table', () => {
  it('is read with or without heads, with commas, semicolons or tabs', () => {
    const rows = [
      { throttlePercent: 20, volts: 16.4, amps: 0.7, thrustG: 34 },
      { throttlePercent: 100, volts: 15.6, amps: 11.6, thrustG: 262 },
    ]
    expect(readBenchTable('throttle,volts,amps,grams\n20,16.4,0.7,34\n100,15.6,11.6,262')).toEqual({ value: rows })
    expect(readBenchTable('20;16,4;0,7;34\r\n100;15,6;11,6;262\r\n')).toEqual({ value: rows })
    expect(readBenchTable('20 %\t16.4 V\t0.7 A\t34 g\n100\t15.6\t11.6\t262')).toEqual({ value: rows })
  })
  it.each([
    ['20,16,1,30\n20,16,2,60', 'Row 2, throttle: 20 %'],
    ['50,16,1,30\n40,16,2,60', 'Row 2, throttle: 40 %'],
    ['20,16,1,30\n100,15,9,20', 'Row 2, grams: the thrust falls'],
    ['20,,1,30\n100,15,9,90', 'Row 1, volts: missing'],
    ['20,16,x,30\n100,15,9,90', 'Row 1, amps: “x”'],
    ['20,16,1,30\n120,15,9,90', 'Row 2, throttle: “120”'],
    ['20,16,1,30', 'at least two rows'],
  ])('%j is refused: %s', (text, sentence) => {
    const result = readBenchTable(text)
    expect(isNotRead(result) && result.problem).toContain(sentence)
  })
})
