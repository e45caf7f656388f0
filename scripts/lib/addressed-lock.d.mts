interface LockedPackage {
  readonly version?: string
  readonly name?: string
  readonly integrity?: string
  readonly resolved?: string
  readonly link?: boolean
}

export interface Lock {
  readonly packages: Readonly<Record<string, LockedPackage>>
}

export function withAddresses(lock: Lock, registry: string): Lock
