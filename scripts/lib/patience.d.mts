export function patienceOf(limit: number): number
