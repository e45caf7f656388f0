import type { Check } from './define-check.ts'

/** A page is found and told apart by its title. */
export const pageTitle: Check = {
  rule: 'page-title',
  severity: 'error',
  source: 'WCAG 2.2, 2.4.2 Page Titled',
  isOfPage: true,
  find: ({ site }) => (site.title.trim() === '' ? [{ message: 'The page has no title' }] : []),
}
