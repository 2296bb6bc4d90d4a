import type { H3Event } from 'h3'
import { keptDocuments, type KeptChange, type KeptDocument } from '../../shared/schemas/kept'
import { idSchema } from '../../core/text/schemas'
import { sameData } from '../../core/basics/merge'
import { settingsOfTheMachine } from '../services/keeping-service'
import type { Application } from '../services/application'
import { DomainProblem } from '../problems'

export function documentParameter(event: H3Event): KeptDocument {
  const name = getRouterParam(event, 'document')
  const known = keptDocuments.find(document => document === name)
  if (!known) throw new DomainProblem('not-found', 'There is nothing at this address.')
  return known
}

/** The build whose changes are meant, where a document is taken back by build. */
export function scopeOf(event: H3Event): string {
  const { scope } = getQuery(event)
  if (scope === undefined) return ''
  const known = idSchema.safeParse(scope)
  if (!known.success) throw new DomainProblem('invalid', known.error.issues[0]!.message, 'scope')
  return known.data
}

/** Refuses a change, from another device, of what is set at the machine itself. */
export function requireMachine(
  event: H3Event,
  changes: readonly Pick<KeptChange, 'kind' | 'set'>[],
  app: Application,
): void {
  if (isAtTheMachine(event)) return
  const settings = app.settings.load()
  const touched = settingsOfTheMachine.find(key =>
    changes.some(
      ({ kind, set }) => kind === 'settings' && set && Object.hasOwn(set, key) && !sameData(set[key], settings[key]),
    ),
  )
  if (touched)
    throw new DomainProblem(
      'at-the-machine',
      touched === 'benchScale'
        ? 'The address of the scale is set on the machine itself.'
        : 'The names of this machine are set on the machine itself.',
      touched,
    )
}

/** One change of what is kept outside the builds, as the older routes make it: whatever was there, these are the fields. */
export async function keepOne(app: Application, document: KeptDocument, ...changes: KeptChange[]): Promise<void> {
  await app.keeping.change(document, [{ changes, key: null, onTop: false }])
}
