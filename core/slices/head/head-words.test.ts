import { describe, expect, it } from 'vitest'
import { applyCommand, describeCommand, diffBuilds, makeBuild } from '../../changes/commands'
import type { Build } from '../../model/ledger'
import type { BuildFields } from './index'

const setups = [{ id: 's', name: 'as built', lineIds: [] }]
const humbug = {
  ...{ massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: null, minutes: null },
  ...{ note: '', pictureIds: [] },
}
const wordsOf = (build: Build, fields: BuildFields) => {
  const command = { type: 'build.set', fields } as const
  return describeCommand(command, build, diffBuilds(build, applyCommand(build, command))).title
}

describe('what the journal says of the head of a build', () => {
  const build = makeBuild({ id: 'b', name: 'Humbug', setups })
  it('names places that came and went, and counts rule cards', () => {
    const flown = applyCommand(build, { type: 'build.set', fields: { aim: { places: ['United States'] } } })
    expect(wordsOf(build, { aim: { places: ['United States'] } })).toBe('Aim: flown in: “United States” added')
    expect(wordsOf(flown, { aim: { places: ['the ridge'] } })).toBe(
      'Aim: flown in: “the ridge” added, flown in: “United States” taken out',
    )
    expect(wordsOf(build, { aim: { cardIds: ['a', 'b'] } })).toBe('Aim: rule cards: 2 more')
  })
  it('tells what changed of a reference craft', () => {
    const craft = { ...build, reference: humbug }
    expect(wordsOf(craft, { reference: { ...humbug, massG: 230 } })).toMatch(/^Reference craft: .*231.4 → 230/)
    expect(wordsOf(craft, { reference: { ...humbug, note: 'bought', pictureIds: ['p'] } })).toBe(
      'Reference craft: its note, a picture added',
    )
    expect(wordsOf(craft, { reference: null })).toBe('Is no reference craft any more')
    expect(wordsOf(build, { reference: humbug })).toBe('Is a reference craft')
  })
})
