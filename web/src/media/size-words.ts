const UNITS = ['byte', 'kilobyte', 'megabyte'] as const

/** How large a file is, in the largest unit of which it has at least one; units of 1,000 (IEC 80000-13 leaves k and M to them). */
export function sizeWords(bytes: number): string {
  const power = bytes < 1_000 ? 0 : bytes < 1_000_000 ? 1 : 2
  const unit = UNITS[power]
  return new Intl.NumberFormat('en', {
    style: 'unit',
    unit,
    maximumFractionDigits: power === 2 ? 1 : 0,
  }).format(bytes / 1_000 ** power)
}
