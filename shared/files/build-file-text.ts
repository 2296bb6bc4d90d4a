import type { z } from 'zod'
import { buildFileSchema, type BuildFile } from '../schemas/build-file'
import { buildSchema } from '../schemas/build'

/** A build file whose journal may be made while it is written. */
export type WritableBuildFile = Omit<BuildFile, 'journal' | 'massVersions'> & {
  readonly massVersions: Iterable<BuildFile['massVersions'][number]>
  readonly journal: Iterable<BuildFile['journal'][number]>
}

const { massVersions, journal, ownCards, flights, findings, renewals, settings } = buildFileSchema.shape

/** The text of a build file, line by line: every item of a list has its own line, in the order of the schema. */
export function* linesOfFile(file: WritableBuildFile): Generator<string> {
  const fields = Object.entries(buildSchema.parse(file.build))
  yield (
    `{\n  "format": ${JSON.stringify(file.format)},\n  "version": ${file.version},\n  "versions": ` +
    `${JSON.stringify(file.versions)},\n  "build": {\n`
  )
  for (const [i, [key, value]] of fields.entries()) {
    const end = i === fields.length - 1 ? '' : ','
    if (Array.isArray(value) && value.length > 0) yield* rows(key, value, '    ', end)
    else yield `    ${JSON.stringify(key)}: ${JSON.stringify(value)}${end}\n`
  }
  yield '  },\n'
  yield* rows('ownCards', ownCards.parse(file.ownCards), '  ', ',')
  yield* rows('massVersions', parsed(massVersions.element, file.massVersions), '  ', ',')
  yield* rows('journal', parsed(journal.element, file.journal), '  ', ',')
  yield* rows('flights', parsed(flights.element, file.flights), '  ', ',')
  yield* rows('findings', parsed(findings.element, file.findings), '  ', ',')
  yield* rows('renewals', parsed(renewals.element, file.renewals), '  ', ',')
  yield* rows('settings', parsed(settings.element, file.settings), '  ', '')
  yield '}\n'
}

function* parsed(schema: z.ZodType, items: Iterable<unknown>): Generator<unknown> {
  for (const item of items) yield schema.parse(item)
}

/** A list under its name, an item to each line. */
function* rows(key: string, items: Iterable<unknown>, indent: string, end: string): Generator<string> {
  let open = `${indent}${JSON.stringify(key)}: [`
  for (const item of items) {
    yield `${open}\n${indent}  ${JSON.stringify(item)}`
    open = ','
  }
  yield open === ',' ? `\n${indent}]${end}\n` : `${open}]${end}\n`
}
