export function ensureMade(
  folder: string,
  inputs: readonly string[],
  make: (folder: string) => Promise<void>,
): Promise<void>
