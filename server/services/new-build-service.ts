import { CommandRefused, makeBuild } from '../../core/changes/commands'
import { craftPresets, presetLines } from '../../core/parts/catalogue'
import { countedLines, defaultLoadout } from '../../core/mass/loadout'
import { takenApart } from '../../core/slices/lines'
import { blankAim, twinOfLine, type Build, type Line } from '../../core/model/ledger'
import type { NewBuild } from '../../shared/schemas/api'
import type { settingsRepository } from '../db/settings-repository'
import type { BuildService } from './build-service'
import type { OutcomeService } from './outcome-service'
import { DomainProblem } from '../problems'

/** What the core refuses, as a problem the builder reads. */
function refusing<T>(work: () => T): T {
  try {
    return work()
  } catch (error) {
    throw error instanceof CommandRefused ? new DomainProblem('refused', error.message, error.field) : error
  }
}

interface Dependencies {
  builds: BuildService
  settings: ReturnType<typeof settingsRepository>
  outcomes: Pick<OutcomeService, 'planned'>
  newId: () => string
  now: () => string
}

/** Starts builds: from a craft class, empty, as a copy, or as a reference craft. */
export function newBuildService({ builds, settings, outcomes, newId, now }: Dependencies) {
  function blank(name: string, craftClass: string, lines: Line[]): Build {
    const setups = [{ id: newId(), name: 'as built', lineIds: [] }]
    return makeBuild({ id: newId(), name, craftClass, aim: blankAim(settings.load().confidence), lines, setups })
  }

  /** The same plan again: its lines are other pieces, which nobody has weighed, drawn from the drawer or put together. */
  function copyOf(build: Build, name: string): Build {
    return {
      ...build,
      id: newId(),
      name,
      archived: false,
      lines: build.lines.map(line => twinOfLine(line, newId)),
      observations: [],
      assembly: build.assembly && { ...build.assembly, records: [] },
    }
  }

  /**
   * What a reference craft becomes when it is taken apart: its parts as they were said, and the rest as one line, out of
   * which more are named one by one.
   */
  function stripped(craft: Build, name: string): Build {
    const { name: whole, reference, setups, flies } = craft
    if (!reference) throw new DomainProblem('refused', 'Only a reference craft is taken apart here.', 'buildId')
    // The pieces are the same ones: what they teach of listings is said once, by the craft they come from.
    const parts = countedLines(craft, defaultLoadout(craft)).map(line => ({
      ...line,
      ...{ partId: null, listing: line.mass?.evidence === 'weighed' ? null : line.listing },
    }))
    const ids = { restId: newId(), versionId: newId(), observationId: newId() }
    const apart = refusing(() => takenApart({ name: whole, lines: parts }, reference, ids, now()))
    const build = { ...blank(name, '', [...apart.lines]), observations: [apart.observation] }
    const here = new Set(parts.map(({ id }) => id))
    const packLineId = flies.packLineId !== null && here.has(flies.packLineId) ? flies.packLineId : null
    return {
      ...build,
      setups: setups.map(setup => ({ ...setup, lineIds: setup.lineIds.filter(id => here.has(id)) })),
      flies: { ...flies, packLineId },
    }
  }

  async function made(wanted: NewBuild): Promise<Build> {
    const name = wanted.name.trim()
    switch (wanted.from) {
      case 'empty':
        return blank(name, '', [])
      case 'reference':
        return { ...blank(name, 'reference craft', []), reference: wanted.reference }
      case 'strip':
        return stripped(builds.read(wanted.buildId).build, name)
      case 'copy':
        return copyOf(
          wanted.seq === undefined
            ? builds.read(wanted.buildId).build
            : (await builds.stateAt(wanted.buildId, wanted.seq)).build,
          name,
        )
      case 'class': {
        if (!craftPresets.some(p => p.name === wanted.craftClass))
          throw new DomainProblem('invalid', 'There is no such craft class.', 'craftClass')
        return blank(
          name,
          wanted.craftClass,
          outcomes.planned(wanted.craftClass, presetLines(wanted.craftClass, newId)),
        )
      }
    }
  }

  return {
    async start(wanted: NewBuild): Promise<string> {
      const build = await made(wanted)
      await builds.insert(build, [], [])
      return build.id
    },
  }
}
