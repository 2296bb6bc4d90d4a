import { makeBuild } from '../../core/changes/commands'
import { craftPresets, presetLines } from '../../core/parts/catalogue'
import { blankAim, twinOfLine, type Build, type Line } from '../../core/model/ledger'
import type { NewBuild } from '../../shared/schemas/api'
import type { settingsRepository } from '../db/settings-repository'
import type { BuildService } from './build-service'
import type { OutcomeService } from './outcome-service'
import { DomainProblem } from '../problems'

interface Dependencies {
  builds: BuildService
  settings: ReturnType<typeof settingsRepository>
  outcomes: Pick<OutcomeService, 'planned'>
  newId: () => string
}

/** Starts builds: from a craft class, empty, as a copy, or as a reference craft. */
export function newBuildService({ builds, settings, outcomes, newId }: Dependencies) {
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

  async function made(wanted: NewBuild): Promise<Build> {
    const name = wanted.name.trim()
    switch (wanted.from) {
      case 'empty':
        return blank(name, '', [])
      case 'reference':
        return { ...blank(name, 'reference craft', []), reference: wanted.reference }
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
