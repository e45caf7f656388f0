/** MariaDB's words for it (Error Code Reference: 1021, 1114 and 1026). */
const DATABASE_FULL =
  'The disk of the server’s database is full. Nothing was changed; make room on it, then try again.'

/** What keeps a file from being written, in words for the person who can mend it. */
const FAULTS: Readonly<Record<string, string>> = {
  ENOSPC: 'The server’s disk is full. Nothing was changed; make room on it, then try again.',
  EDQUOT: 'The server’s disk quota is used up. Nothing was changed; make room, then try again.',
  EROFS: 'The server’s data folder can’t be written to: its disk is read-only. Nothing was changed.',
  EACCES: 'The server may not write to its data folder. Nothing was changed; ask who runs it to allow that.',
  EPERM: 'The server may not write to its data folder. Nothing was changed; ask who runs it to allow that.',
  ER_DISK_FULL: DATABASE_FULL,
  ER_RECORD_FILE_FULL: DATABASE_FULL,
  ER_ERROR_ON_WRITE: DATABASE_FULL,
  EMFILE: 'The server has too many files open. Nothing was changed; try again in a moment.',
}

/** Returns, in words for people, what is wrong with the disk or the open files; undefined if the error is about neither. */
export function faultWords(error: unknown): string | undefined {
  const code = (error as { code?: unknown } | undefined)?.code
  return typeof code === 'string' && Object.hasOwn(FAULTS, code) ? FAULTS[code] : undefined
}
