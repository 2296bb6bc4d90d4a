import { describe, expect, it } from 'vitest'
import { makeBuild, applyCommand } from '../../changes/commands'
import { makeLine, makeMass, type Build, type Line, type Slot } from '../../model/ledger'
import { ListingBiasTable } from '../listings'
import { countedLines, dryLines, estimatesOf, inNoSetup, loadoutMasses, loadoutName } from './index'

const line = (id: string, slot: Slot, valueG: number, more: Partial<Line> = {}) =>
  makeLine({
    id,
    slot,
    name: id,
    mass: makeMass({ versionId: id, evidence: 'weighed', valueG, ownSpreadG: 0 }),
    ...more,
  })
const build = makeBuild({
  id: 'b',
  name: 'b',
  lines: [
    line('frame', 'frame', 60),
    line('cradle', 'printed part', 4, { tie: 'camera' }),
    line('camera', 'payload', 32.5, { tie: 'camera', role: 'payload' }),
    line('guard', 'printed part', 6, { role: 'fitting' }),
    line('p', 'pack', 80),
  ],
  setups: [
    { id: 'with', name: 'with camera', lineIds: ['camera', 'guard'] },
    { id: 'bare', name: 'bare', lineIds: ['guard'] },
  ],
  flies: { setupId: 'with', packLineId: 'p' },
})
const choice = (setupId: string) => ({ setupId, packLineId: 'p' })
const names = (of: Build, setupId: string) => countedLines(of, choice(setupId)).map(l => l.id)
const massG = (of: Build, setupId: string) =>
  loadoutMasses(of, [choice(setupId)], estimatesOf(of, new ListingBiasTable()))[0]!.massG

describe('what flies', () => {
  it('an airframe line tied to the camera goes with it: neither counts with the camera off', () => {
    expect(names(build, 'with')).toEqual(['frame', 'cradle', 'camera', 'guard', 'p'])
    expect(names(build, 'bare')).toEqual(['frame', 'guard', 'p'])
    expect([massG(build, 'with'), massG(build, 'bare')]).toEqual([182.5, 146])
    expect(dryLines(build, choice('bare')).map(l => l.id)).toEqual(['frame', 'guard'])
  })
  it('a pack nobody has described yet goes by the label that is on it', () => {
    const labelled = (label: string): Build => ({
      ...build,
      lines: build.lines.map(l => (l.id === 'p' ? { ...l, name: 'New pack', packSoFar: { label } } : l)),
    })
    expect(loadoutName(labelled('N2'), choice('bare'))).toBe('bare · N2')
    expect(loadoutName(labelled(''), choice('bare'))).toBe('bare · New pack')
  })
  it('tied only among themselves, airframe lines always fly', () => {
    const tied: Build = {
      ...build,
      lines: build.lines.map(l =>
        l.id === 'camera' ? { ...l, tie: null } : l.id === 'frame' ? { ...l, tie: 'camera' } : l,
      ),
    }
    expect(names(tied, 'bare')).toEqual(['frame', 'cradle', 'guard', 'p'])
    expect(massG(tied, 'bare')).toBe(150)
  })
  it('the sheet follows a tie that comes with another line', () => {
    const estimates = estimatesOf(build, new ListingBiasTable())
    const untied: Build = { ...build, lines: build.lines.map(l => (l.id === 'camera' ? { ...l, state: 'off' } : l)) }
    const masses = (of: Build) => loadoutMasses(of, [choice('bare')], estimates)[0]!.massG
    expect([masses(build), masses(untied), masses(build)]).toEqual([146, 150, 146])
  })
  it('what no set-up names is told, and joins the set-up it is added in', () => {
    const lamp = line('lamp', 'payload', 6, { role: 'payload' })
    const alone = applyCommand(build, { type: 'lines.add', lines: [lamp], beforeId: null })
    expect(inNoSetup(alone).map(l => l.id)).toEqual(['lamp'])
    const joined = applyCommand(build, {
      type: 'lines.add',
      lines: [lamp, line('strap', 'strap', 3), line('spare', 'payload', 3, { role: 'payload', state: 'off' })],
      beforeId: null,
      setupId: 'bare',
    })
    expect(inNoSetup(joined)).toEqual([])
    expect(joined.setups.map(s => s.lineIds)).toEqual([
      ['camera', 'guard'],
      ['guard', 'lamp'],
    ])
    expect(
      inNoSetup({ ...build, setups: build.setups.map(s => ({ ...s, lineIds: ['guard'] })) }).map(l => l.id),
    ).toEqual(['camera'])
  })
})
