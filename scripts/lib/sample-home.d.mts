export function copySampleHome(to: string): Promise<void>
