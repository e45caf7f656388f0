export function timesOf(short: number, long: number): number
