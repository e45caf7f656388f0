export interface Database {
  readonly url: string
  urlOf(database: string): string
  readonly pid: number
  readonly ended: Promise<unknown>
  stop(): Promise<void>
}
export function startMariadb(
  dataDir: string,
  port: number,
  options?: { readonly forTests?: boolean },
): Promise<Database>
