/** The screens around the page, in the order of the list that every one of them has. */
import type { Role } from '@gullyline/core'

export interface SiteScreenInfo {
  readonly path: string
  readonly title: string
  readonly group: 'Build' | 'Shape' | undefined
  /** Who has a use for it; everyone where it is left out. */
  readonly roles?: readonly Role[]
  /** Everyday names that people search for. */
  readonly synonyms: readonly string[]
}

const SITE_SCREENS: readonly SiteScreenInfo[] = [
  { path: '/', title: 'Pages', group: 'Build', synonyms: ['page tree', 'sitemap', 'home'] },
  {
    path: '/media-library',
    title: 'Media',
    group: 'Build',
    synonyms: ['pictures', 'images', 'photos', 'files', 'documents', 'downloads', 'library', 'upload'],
  },
  {
    path: '/library',
    title: 'Library',
    group: 'Build',
    synonyms: ['patterns', 'reuse', 'saved blocks', 'sections', 'templates'],
  },
  {
    path: '/reach-map',
    title: 'Reach map',
    group: 'Build',
    synonyms: ['where used', 'dependencies', 'impact', 'which pages', 'graph'],
  },
  {
    path: '/gullies',
    title: 'Gullies',
    group: 'Build',
    synonyms: ['responsive', 'breakpoints', 'audit', 'broken layout', 'mobile', 'report'],
  },
  {
    path: '/navigation',
    title: 'Navigation',
    group: 'Shape',
    roles: ['editor', 'keeper'],
    synonyms: ['menu', 'links', 'header'],
  },
  {
    path: '/settings',
    title: 'Settings',
    group: 'Shape',
    synonyms: [
      'site name',
      'language',
      'icon',
      'favicon',
      'sharing picture',
      'custom sizes and colours',
      'rules',
    ],
  },
  {
    path: '/sites-and-people',
    title: 'Sites and people',
    group: 'Shape',
    roles: ['keeper'],
    synonyms: ['add a site', 'second site', 'domain', 'accounts', 'users', 'team', 'members', 'who'],
  },
  {
    path: '/bin',
    title: 'Bin',
    group: undefined,
    synonyms: ['trash', 'deleted pages', 'restore', 'recycle'],
  },
  { path: '/help', title: 'Help', group: undefined, synonyms: ['how to', 'keys', 'shortcuts', 'manual'] },
]

/** The screens that somebody of this role has a use for. */
export function screensFor(role: Role): readonly SiteScreenInfo[] {
  return SITE_SCREENS.filter(({ roles }) => roles?.includes(role) ?? true)
}
