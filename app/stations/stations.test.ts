import { describe, expect, it } from 'vitest'
import { applyCommand, makeBuild, type Command } from '#core/changes/commands'
import { balanceOf } from '#core/aircraft/balance'
import { sheetCells } from '#core/aircraft/flight'
import { fitReport, noGear } from '#core/aircraft/fit'
import { checked, taking } from '../../core/deciding/weigh/testing'
import { takeTogether } from '#core/deciding/weigh'
import { startingCards } from '#core/limits/rules'
import { ListingBiasTable } from '#core/mass/listings'
import { estimatesOf } from '#core/mass/loadout'
import { chosenCards, overviewOf } from '#core/mass/report'
import { sequenceOf } from '#core/making/assembly'
import type { Build } from '#core/model/ledger'
import marzipanFile from '../../demo/builds/marzipan.build.json'
import nougatFile from '../../demo/builds/nougat.build.json'
import { stationPath, stations, type Desk } from './index'
import { stationViews } from './views'

const [marzipan, nougat] = [marzipanFile.build, nougatFile.build] as unknown as Build[]
const after = (build: Build, ...commands: readonly Command[]) => commands.reduce(applyCommand, build)

function deskOf(build: Build): Desk {
  const estimates = estimatesOf(build, new ListingBiasTable())
  return {
    build,
    choice: build.flies,
    overview: overviewOf(build, build.flies, startingCards, estimates),
    fit: fitReport(build, build.flies, noGear),
    balance: balanceOf(build, build.flies, estimates),
    loadouts: sheetCells(build, [], chosenCards(build, startingCards), estimates),
    flown: { flights: 0, open: 0 },
    lastChange: null,
  }
}
const statusOf = (page: string, desk: Desk) => stations.find(station => station.page === page)!.status(desk)
const status = (page: string, build: Build) => statusOf(page, deskOf(build))

describe('stations', () => {
  it('each have a key, a number, a name and a page of their own, in the order of work', () => {
    for (const of of ['key', 'number', 'name', 'page'] as const)
      expect(new Set(stations.map(station => station[of])).size, of).toBe(stations.length)
    expect(stations.map(station => station.number)).toEqual(
      [...stations.map(station => station.number)].sort((a, b) => a - b),
    )
    expect(stationPath('marzipan', stations[0]!)).toBe('/builds/marzipan/aim')
    expect(Object.keys(stationViews)).toEqual(stations.map(station => station.page))
  })
  it('say of an empty build what is missing, and nothing in red', () => {
    const empty = makeBuild({ id: 'e', name: 'Empty' })
    expect(Object.fromEntries(stations.map(({ page }) => [page, status(page, empty)?.line]))).toEqual({
      aim: 'no limit chosen',
      parts: '0 of 0 weighed',
      fit: 'nothing to fit yet',
      fly: 'not flown yet',
      weigh: 'no part weighed yet',
      shave: 'nothing on the list',
      packs: 'no pack yet',
      assemble: 'not begun',
      balance: 'nothing to hang yet',
      record: 'nothing to take back',
    })
    expect(stations.map(({ page }) => status(page, empty)?.tone)).not.toContain('bad')
  })
  it('Aim names the card that binds with its limit', () => {
    expect(status('aim', marzipan!)).toEqual({ line: expect.stringMatching(/^\d+(\.\d+)? g, .+/), tone: 'good' })
  })
  it('Parts counts what is weighed and what has no grams', () => {
    const line = marzipan!.lines.find(l => l.state === 'fitted' && l.role === 'airframe' && l.mass)!
    const open = after(marzipan!, { type: 'lines.change', changes: [{ id: line.id, fields: { mass: null } }] })
    expect(status('parts', open)?.line).toMatch(/ · 1 open$/)
    expect(status('parts', open)?.tone).toBe('mid')
  })
  it('Fit counts clashes, and says nothing while it is worked out', () => {
    expect(status('fit', marzipan!)).toMatchObject({ line: expect.stringContaining('2 clashes'), tone: 'bad' })
    expect(statusOf('fit', { ...deskOf(marzipan!), fit: null })).toBeUndefined()
  })
  it('Weigh tells what was on a scale of the list from what was typed', () => {
    expect(status('weigh', marzipan!)?.line).toBe('13 typed as weighed')
    const line = marzipan!.lines.find(l => l.mass?.evidence === 'weighed')!
    const mass = takeTogether(taking(checked), line, [line.mass!.valueG], line.quantity, 'as fitted')
    const again = after(marzipan!, { type: 'line.weigh', id: line.id, mass, as: 'estimate' })
    expect(status('weigh', again)?.line).toBe('1 on a scale · 12 typed as weighed')
  })
  it('Shave counts what is on the list, planned and done', () => {
    expect(status('shave', nougat!)?.line).toMatch(/^\d+ on the list/)
    const ids = nougat!
      .shave!.shavings.filter(s => s.state === 'idea')
      .map(s => s.id)
      .slice(0, 1)
    expect(status('shave', after(nougat!, { type: 'shavings.plan', ids }))?.line).toMatch(/ · 1 planned/)
  })
  it('Packs is red only where something is over that nobody means to fly so', () => {
    const over = deskOf(marzipan!).loadouts.filter(cell => cell.intoReserveG !== 0)
    expect(over.length).toBeGreaterThan(0)
    expect(status('packs', marzipan!)?.tone).not.toBe('good')
    const choices = over.map(cell => ({ setupId: cell.choice.setupId, packLineId: cell.choice.packLineId }))
    const meant = after(marzipan!, { type: 'flying.set', fields: { overOnPurpose: choices } })
    expect(status('packs', meant)?.tone).toBe('good')
  })
  it('Assemble counts steps, and failed tests before them', () => {
    const begun = after(nougat!, { type: 'assembly.set', fields: {} })
    expect(status('assemble', begun)?.line).toMatch(/^0 of \d+ steps$/)
    const order = sequenceOf(begun, begun.flies)
    const tested = 'steps' in order ? order.steps.find(step => step.test)! : null
    const failed = after(begun, { type: 'assembly.record', stepId: tested!.id, fields: { test: 'failed' } })
    expect(status('assemble', failed)).toEqual({ line: '1 test failed', tone: 'bad' })
  })
  it('Record names what would be taken back', () => {
    expect(statusOf('record', { ...deskOf(nougat!), lastChange: 'Fitted it' })?.line).toBe('last: Fitted it')
  })
  it('fold away where a craft is known only as a whole, but for what can still be said of it', () => {
    const craft = { massG: 249, spreadG: 0.5, thrustG: null, priceCents: null, minutes: null, note: '', pictureIds: [] }
    const whole = makeBuild({ id: 'r', name: 'Bought', reference: craft })
    expect(stations.filter(station => !station.foldsAway(whole)).map(station => station.name)).toEqual([
      'Aim',
      'Parts',
      'Record',
    ])
    expect(status('parts', whole)?.line).toBe('nothing said of its parts')
    const known = { ...whole, lines: nougat!.lines.filter(line => line.slot === 'motor') }
    expect(status('parts', known)?.line).toMatch(/^\d+\.\d of 249\.0 g accounted for, \d+ %$/)
    expect(stations.some(station => station.foldsAway(marzipan!))).toBe(false)
  })
})
