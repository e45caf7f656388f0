interface Running {
  readonly ended: Promise<unknown>
  stop(): Promise<unknown>
}
export function keepRunning<R extends Running>(
  what: string,
  start: () => Promise<R>,
): Promise<{ readonly current: R; readonly failed: Promise<void>; stop(): Promise<void> }>
