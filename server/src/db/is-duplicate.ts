import { QueryFailedError } from 'typeorm'

/** Of two who want one name at once, the key of the table tells the second (MariaDB, error 1062). */
export function isDuplicate(error: unknown): boolean {
  return error instanceof QueryFailedError && (error.driverError as { code?: string }).code === 'ER_DUP_ENTRY'
}
