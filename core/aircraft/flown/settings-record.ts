/** A device and the version of its firmware, as somebody said it; what the parts of a version mean is never guessed. */
export interface FirmwareVersion {
  readonly device: string
  readonly version: string
}

/** The configuration of a craft as it was one day: a text kept whole, never read beyond its lines. */
export interface SettingsRecord {
  readonly id: string
  readonly buildId: string
  readonly name: string
  /** Local day and time. */
  readonly at: string
  /** The revision of the build it was made at. */
  readonly revision: number
  readonly firmware: readonly FirmwareVersion[]
  readonly text: string
}

/** The settings a flight was flown with: the last ones before it. */
export function settingsAt(records: readonly SettingsRecord[], flownAt: string): SettingsRecord | null {
  return records.reduce<SettingsRecord | null>(
    (last, record) => (record.at <= flownAt && (!last || record.at >= last.at) ? record : last),
    null,
  )
}
