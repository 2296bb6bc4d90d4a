import { describe, expect, it } from 'vitest'
import { slots } from '../ledger'
import { HonestyTable } from '../listings'
import { LineEstimates } from '../loadout'
import { spreadG } from '../estimate'
import { craftPresets, presetLines, typicalClasses, typicalMasses, typicalProperties } from './index'

describe('the starter catalogue', () => {
  it('has a sane range and a known slot in every row', () => {
    for (const typical of typicalMasses) {
      expect(slots).toContain(typical.slot)
      expect(typical.lowG).toBeGreaterThan(0)
      expect(typical.highG).toBeGreaterThan(typical.lowG)
    }
    expect(typicalClasses('motor')[0]?.class).toBe('0702')
  })
  it.each(craftPresets.map(p => p.name))('%s gives a plan with total, pack, solder and spread', (name) => {
    let n = 0
    const lines = presetLines(name, () => `id${n++}`)
    expect(new Set(lines.map(l => l.id)).size).toBe(lines.length)
    for (const slot of ['frame', 'motor', 'propeller', 'board', 'pack'] as const) expect(lines.some(l => l.slot === slot)).toBe(true)
    expect(lines.some(l => /solder/i.test(l.name))).toBe(true)
    const table = new LineEstimates(new HonestyTable())
    for (const line of lines) expect(spreadG(table.of(line))).toBeGreaterThan(0)
  })
  it('says of a propeller and a motor what their class name says', () => {
    expect(typicalProperties('propeller', '3 in three-blade')).toEqual({ diameterMm: 76.2, blades: 3 })
    expect(typicalProperties('propeller', '31 mm')).toEqual({ diameterMm: 31 })
    expect(typicalProperties('motor', '1404')).toEqual({ statorDiameterMm: 14, statorHeightMm: 4 })
    expect(typicalProperties('camera', 'digital nano')).toBeNull()
    for (const preset of craftPresets) expect(presetLines(preset.name, () => 'x').find(line => line.slot === 'propeller')!.properties!.diameterMm).toBeGreaterThan(20)
  })
  it('refuses a class it does not have', () => {
    expect(() => presetLines('9-inch lifter', () => 'x')).toThrow('craftClass')
  })
})
