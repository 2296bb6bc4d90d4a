import { describe, expect, it } from 'vitest'
import { slots } from '../ledger'
import { HonestyTable } from '../listings'
import { LineEstimates } from '../loadout'
import { spreadG } from '../estimate'
import { craftPresets, presetLines, typicalClasses, typicalMasses } from './index'

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
  it('refuses a class it does not have', () => {
    expect(() => presetLines('9-inch lifter', () => 'x')).toThrow('craftClass')
  })
})
