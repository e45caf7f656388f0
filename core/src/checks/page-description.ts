import type { Check } from './define-check.ts'

/** Search engines and shared links show the description. */
export const pageDescription: Check = {
  rule: 'page-description',
  severity: 'warning',
  source: 'HTML standard, "Standard metadata names": description',
  isOfPage: true,
  find: ({ site }) => (site.description.trim() === '' ? [{ message: 'The page has no description' }] : []),
}
