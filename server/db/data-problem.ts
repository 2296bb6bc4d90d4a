/** What can be wrong with the data folder as a whole. */
export type DataTrouble = 'newer' | 'damaged' | 'read-only' | 'full' | 'in use' | 'gone' | 'unknown'

const words: Readonly<Record<Exclude<DataTrouble, 'newer' | 'unknown'>, string>> = {
  damaged:
    'The database in the data folder is damaged and cannot be read. Put a copy of it in its place: ' +
    'the application made one before each update, named “jolly-gram.before-…”, in the same folder. ' +
    'Nothing is written meanwhile.',
  'read-only':
    'The data folder cannot be written to. Give the application leave to write there, or name another ' +
    'folder in JOLLY_GRAM_DATA. Nothing is written meanwhile.',
  full: 'The disk with the data folder is full. Make room; what was typed is kept where it was typed and written then.',
  'in use':
    'Another program holds the database for itself. Close it; what was typed is kept where it was typed and written then.',
  gone: 'The data folder was moved or deleted while the application was running. Put it back. Nothing is written meanwhile.',
}

/** The data cannot be opened or written: a sentence that says what to do. It ends by itself when that is done. */
export class DataProblem extends Error {
  constructor(
    readonly trouble: DataTrouble,
    sentence = trouble === 'newer' || trouble === 'unknown' ? 'The data cannot be opened.' : words[trouble],
  ) {
    super(sentence)
    this.name = 'DataProblem'
  }
}

/** Codes of the database and of the file system that mean trouble with the data as a whole. */
const troubles: readonly (readonly [RegExp, DataTrouble])[] = [
  [/^SQLITE_(?:CORRUPT|NOTADB|FORMAT|IOERR_SHORT_READ)/, 'damaged'],
  [/^SQLITE_(?:READONLY|CANTOPEN|PERM|AUTH)|^(?:EACCES|EPERM|EROFS|ENOTDIR)$/, 'read-only'],
  [/^SQLITE_FULL|^(?:ENOSPC|EDQUOT)$/, 'full'],
  [/^SQLITE_(?:BUSY|LOCKED|PROTOCOL)/, 'in use'],
  [/^SQLITE_IOERR|^(?:ENOENT|ESTALE|EIO)$/, 'gone'],
]

/** What an error of the database or the file system says about the data as a whole; null where it is about something else. */
export function dataProblemOf(error: unknown): DataProblem | null {
  if (error instanceof DataProblem) return error
  const code = (error as { code?: unknown } | null)?.code
  const found = typeof code === 'string' ? troubles.find(([pattern]) => pattern.test(code)) : undefined
  return found ? new DataProblem(found[1]) : null
}
