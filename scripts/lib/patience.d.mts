export function patienceOf(limit: number, took: number): number
