export const SAMPLE_ORIGIN: string
export function copySampleHome(to: string): Promise<void>
export function copySampleFiles(to: string): Promise<void>
