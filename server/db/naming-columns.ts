/**
 * Every column that can name a file kept beside the database (pictures, photos, logs) by its id: what is there now, and
 * everything that can still be taken back or done again.
 */
export const namingColumns = [
  { table: 'lines', column: 'picture_ids' },
  { table: 'parts', column: 'picture_ids' },
  { table: 'reference_crafts', column: 'picture_ids' },
  { table: 'observations', column: 'observation' },
  { table: 'build_parts', column: 'value' },
  { table: 'findings', column: 'value' },
  { table: 'flights', column: 'value' },
  { table: 'journal', column: 'patch' },
  { table: 'kept_journal', column: 'changes' },
] as const
