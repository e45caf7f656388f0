/** The settings of the site, as they are found by searching. */
export const SETTINGS = [
  { id: 'name', title: 'Site name', synonyms: ['title', 'brand'] },
  { id: 'language', title: 'Language', synonyms: ['lang', 'locale'] },
  { id: 'icon', title: 'Icon', synonyms: ['favicon', 'logo', 'app icon'] },
  { id: 'share-picture', title: 'Sharing picture', synonyms: ['social media', 'og:image', 'preview'] },
  {
    id: 'navigation-limit',
    title: 'Pages in the navigation',
    synonyms: ['menu', 'limit', 'top level', 'most'],
  },
  { id: 'look', title: 'Look', synonyms: ['colours', 'fonts', 'design tokens', 'theme', 'brand'] },
  {
    id: 'sizes',
    title: 'Screen sizes',
    synonyms: ['breakpoints', 'responsive', 'phone', 'tablet', 'mobile'],
  },
  {
    id: 'own-values',
    title: 'Allow custom sizes and colours',
    synonyms: ['rules', 'own colours', 'custom values'],
  },
] as const
