import type { FlightFinding, Flight } from '#core/aircraft/flown'
import { findingSchema, flightSchema } from '#shared/schemas/flights'
import type { KeptChange, KeptDocument } from '#shared/schemas/kept'

interface Keeping {
  readonly keep: (
    document: KeptDocument,
    name: string,
    changes: readonly KeptChange[],
    words: string,
  ) => Promise<string>
}

const putting = (kind: 'flight' | 'finding', { id, ...set }: Flight | FlightFinding): KeptChange => ({
  kind,
  id,
  seen: null,
  set: set as unknown as Record<string, unknown>,
})

/** Notes a flight with what was found on it, as one change. Returns '' when it is written or waits, else why it cannot be. */
export async function keepFieldFlight(edits: Keeping, flight: Flight, finding: FlightFinding | null): Promise<string> {
  const wrong = flightSchema.safeParse(flight).error ?? (finding && findingSchema.safeParse(finding).error)
  if (wrong) return wrong.issues[0]!.message
  const found = finding ? [putting('finding', { ...finding, flightId: flight.id })] : []
  return edits.keep('flights', 'Flights', [putting('flight', flight), ...found], 'Flight')
}
