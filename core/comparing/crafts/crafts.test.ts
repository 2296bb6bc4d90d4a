import { describe, expect, it } from 'vitest'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { ListingBiasTable } from '../../mass/listings'
import { defaultLoadout, estimatesOf } from '../../mass/loadout'
import { makeLine, type Build } from '../../model/ledger'
import { craftFigures, differingProperties, referenceFigures } from './index'

const nougat = nougatFile.build as unknown as Build

describe('a craft as a whole', () => {
  it('has the figures its stations show', () => {
    const compared = {
      build: nougat,
      choice: defaultLoadout(nougat),
      estimates: estimatesOf(nougat, new ListingBiasTable()),
    }
    const figures = craftFigures(compared, [], null)
    expect(figures.massG).toBeCloseTo(254.97, 9)
    // 254.97 less pack 79.34, camera 24.31, its mount 4.12 and its cable 1.36.
    expect(figures.dryG).toBeCloseTo(145.84, 9)
    expect(figures.gramsPerMinute).toBeCloseTo(254.97 / figures.minutes!, 9)
    expect(figures).toMatchObject({ word: null, restsOn: 0, weighedLines: 18, lines: 18, openLines: 0 })
  })
  it('known only as a whole tells what is known of it and nothing else', () => {
    const known = {
      ...{ massG: 231.4, spreadG: 0.6, thrustG: 925.6, priceCents: null, minutes: null },
      ...{ note: '', pictureIds: [] },
    }
    expect(referenceFigures(known)).toMatchObject({
      massG: 231.4,
      spreadG: 0.6,
      thrustToWeight: 4,
      minutes: null,
      gramsPerMinute: null,
      dryG: null,
      priceCents: null,
    })
  })
})

describe('properties in which lines differ', () => {
  const motor = (id: string, properties: Record<string, never> | object) =>
    makeLine({ id, slot: 'motor', name: id, properties: properties as never })
  it('are told with their unit where two have said them, and not where only one has', () => {
    const lines = [motor('a', { kv: 3800, leadMm: 62 }), motor('b', { kv: 4500 }), null]
    const told = differingProperties(lines)
    expect(told).toHaveLength(1)
    expect(told[0]!.texts).toEqual(['3800', '4500', ''])
    expect(differingProperties([lines[0]!, motor('c', { kv: 3800 })])).toEqual([])
  })
  it('too long to stand beside each other are only named', () => {
    const long = (word: string) => motor(word, { kv: word.repeat(30) })
    expect(differingProperties([long('ab'), long('cd')])[0]!.texts).toEqual([])
  })
})
