import type { Logger } from 'pino'

/** What happened to accounts and to what visitors see: told to the log always, without passwords, tokens or content. */
export type AuditedEvent =
  | 'signed in'
  | 'sign-in refused'
  | 'sign-in locked'
  | 'signed out'
  | 'session ended'
  | 'password changed'
  | 'password change refused'
  | 'access refused'
  | 'published'
  | 'unpublished'
  | 'publish refused'
  | 'account added'
  | 'account removed'
  | 'private address made'
  | 'private address ended'
  | 'exported'
  | 'imported'
  | 'site added'
  | 'added to site'
  | 'taken from site'

/** Logs an event with who and where. Control characters in names can't make a line look like another: the log is JSON. */
export function audit(
  log: Logger,
  event: AuditedEvent,
  facts: Readonly<Record<string, string | number>>,
): void {
  log.info({ audit: event, ...facts }, event)
}
