export interface RunningServer {
  readonly ready: Promise<void>
  readonly ended: Promise<unknown>
  readonly pid: number
  stop(): Promise<void>
  kill(): Promise<void>
}
export function startServer(
  env: Readonly<Record<string, string>>,
  options?: { readonly fromSource?: boolean; readonly within?: readonly string[] },
): RunningServer
