import { describe, expect, it } from 'vitest'
import { applyCommand } from '../../core/changes/commands'
import { makeMass } from '../../core/model/ledger'
import { buildOf, listed, weighTogether } from '../../core/deciding/weigh/testing'
import { leanBuild, wholeBuild } from './lean-build'

const craft = buildOf([listed('frame', 'frame', 40), listed('motors', 'motor', 9.3, 4)])
const weighed = [1, 2, 3].reduce(
  (build, n) =>
    applyCommand(build, {
      type: 'observation.put',
      observation: { ...weighTogether(build, 77 + n / 10).observations.at(-1)!, id: `o${n}` },
    }),
  craft,
)

describe('a build as it is sent', () => {
  it('comes out as it went in, and grows little with weighings of the same parts', () => {
    expect(weighed.observations).toHaveLength(3)
    const sent = JSON.stringify(leanBuild(weighed))
    expect(wholeBuild(JSON.parse(sent))).toEqual(weighed)
    expect(sent.split(JSON.stringify(weighed.lines[0]!.mass))).toHaveLength(2)
    expect(sent.length).toBeLessThan(JSON.stringify(weighed).length)
  })
  it('keeps what was on the pan where the line has other grams by now', () => {
    const mass = makeMass({ versionId: 'other', evidence: 'weighed', valueG: 41 })
    const cut = applyCommand(weighed, {
      type: 'lines.change',
      changes: [{ id: 'frame', fields: { mass }, anotherPiece: true }],
    })
    const gone = applyCommand(cut, { type: 'lines.delete', ids: ['motors'] })
    for (const build of [cut, gone]) expect(wholeBuild(JSON.parse(JSON.stringify(leanBuild(build))))).toEqual(build)
  })
  it('that was sent whole is as it is', () => {
    expect(wholeBuild(weighed)).toEqual(weighed)
  })
})
