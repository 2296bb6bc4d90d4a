import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { startingCards } from '../../core/limits/rules'
import { defaultSettings } from '../../shared/settings'
import { ownCardSchema } from '../../shared/schemas/rule-card'
import { applicationOnDisk } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const fields = {
  place: 'Quillhaven pier',
  purpose: 'summer league',
  purposeKind: 'any' as const,
  comparator: '<=' as const,
  limit: { value: 8.5, unit: 'oz' as const },
  counts: 'take-off' as const,
  conditions: [],
  within: [],
  beyond: [],
  always: [],
  source: 'notice',
  status: 'in force' as const,
  since: null,
}

describe('rule cards', () => {
  it('start with the published ones, unverified', () => {
    expect(disk.app.rules.cards()).toEqual(startingCards)
  })
  it('keep own cards and verified dates across a restart', () => {
    disk.app.rules.add('pier', fields)
    disk.app.rules.verify('pier', '2026-11-01')
    disk.app.rules.verify('jp-100', '2026-11-02')
    const again = disk.again()
    expect(again.rules.cards().find(card => card.id === 'pier')).toEqual({
      ...fields,
      id: 'pier',
      own: true,
      verifiedOn: '2026-11-01',
    })
    expect(again.rules.cards().find(card => card.id === 'jp-100')?.verifiedOn).toBe('2026-11-02')
    again.rules.verify('jp-100', null)
    expect(again.rules.cards().find(card => card.id === 'jp-100')?.verifiedOn).toBeNull()
    again.close()
  })
  it('change and delete own cards only', () => {
    disk.app.rules.add('pier', fields)
    disk.app.rules.change('pier', { ...fields, limit: { value: 9, unit: 'oz' } })
    expect(disk.app.rules.cards().find(card => card.id === 'pier')?.limit?.value).toBe(9)
    disk.app.rules.remove('pier')
    expect(disk.app.rules.cards()).toHaveLength(startingCards.length)
    expect(() => disk.app.rules.change('jp-100', fields)).toThrow('starting cards stay')
    expect(() => disk.app.rules.remove('jp-100')).toThrow('starting cards stay')
    expect(() => disk.app.rules.verify('nobody', '2026-01-01')).toThrow('no such rule card')
  })
  it('are refused when limit and wording do not go together', () => {
    expect(ownCardSchema.safeParse(fields).success).toBe(true)
    for (const wrong of [
      { limit: null },
      { comparator: 'none' },
      { limit: { value: 0, unit: 'g' } },
      { limit: { value: Number.NaN, unit: 'g' } },
      { place: ' ' },
      { since: '2026-02-30' },
    ]) {
      expect(ownCardSchema.safeParse({ ...fields, ...wrong }).success, JSON.stringify(wrong)).toBe(false)
    }
    expect(ownCardSchema.safeParse({ ...fields, comparator: 'none', limit: null }).success).toBe(true)
  })
})

describe('settings', () => {
  it('begin with the defaults and are kept', () => {
    expect(disk.app.settings.load()).toEqual(defaultSettings)
    disk.app.settings.save({ ...defaultSettings, currency: 'kr', confidence: 0.99 })
    const again = disk.again()
    expect(again.settings.load()).toMatchObject({ currency: 'kr', confidence: 0.99 })
    again.close()
  })
})

describe('find', () => {
  it('takes the wildcards of the database as plain letters', async () => {
    await disk.app.newBuilds.start({ from: 'class', name: 'Plan', craftClass: '65 mm ducted' })
    expect(disk.app.builds.searchLines('frame').map(found => found.slot)).toContain('frame')
    expect(disk.app.builds.searchLines('%')).toEqual([])
    expect(disk.app.builds.searchLines('_')).toEqual([])
  })
})
