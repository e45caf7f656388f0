import { pageTree, USUAL_SIZES, type Look, type SiteContext } from '@gullyline/core'

const surface = (background: string, ink: string) => ({
  title: 'Surface',
  background,
  ink,
  quiet: ink,
  titleInk: ink,
  link: ink,
  accent: ink,
  onAccent: background,
  line: ink,
})
const even = (px: number) => ({ from: px, to: px })
const type = (px: number) => ({
  size: { from: px, to: px * 1.5 },
  leading: 1.4,
  tracking: 0,
  weight: 400,
  family: 'words' as const,
})
const family = {
  name: 'Plain',
  fallback: 'sans-serif',
  files: [{ file: 'plain.woff2', style: 'normal' as const, weight: '400' }],
}

/** A look with round numbers, for tests. */
export const testLook: Look = {
  fonts: { words: family, titles: family },
  space: {
    none: even(0),
    hair: even(4),
    xs: even(8),
    s: even(16),
    m: even(24),
    l: even(40),
    xl: { from: 40, to: 80 },
    xxl: even(120),
  },
  type: {
    note: type(12),
    body: type(16),
    lead: type(20),
    minor: type(20),
    title: type(28),
    headline: type(36),
    display: type(48),
  },
  radius: { none: 0, s: 4, m: 8, l: 16, round: 999 },
  surfaces: {
    plain: surface('#ffffff', '#111111'),
    tint: surface('#eeeeee', '#111111'),
    night: surface('#101020', '#ffffff'),
  },
  pageSurface: 'plain',
  widths: { reading: 640, broad: 1120 },
  gutter: { from: 16, to: 32 },
  sizes: USUAL_SIZES,
}

const picture = (id: string) => ({
  id,
  name: `${id}.jpg`,
  width: 1600,
  height: 900,
  alt: 'A hill at dusk',
  sources: [
    { width: 480, avif: `/media/${id}/480.avif`, webp: `/media/${id}/480.webp` },
    { width: 1600, avif: `/media/${id}/1600.avif`, webp: `/media/${id}/1600.webp` },
  ],
  fallback: `/media/${id}/fallback.jpg`,
})

/** The pages of the site below, in the order of its tree. */
export const TEST_PAGES = [
  { id: 'home', parentId: null, title: 'Home', path: '/', description: '' },
  { id: 'visit', parentId: null, title: 'Visit', path: '/visit/', description: 'How to come' },
  { id: 'hours', parentId: 'visit', title: 'Hours', path: '/visit/hours/', description: 'When' },
]

/** A site with two pages that can be linked to and two pictures. */
export function testSite(purpose: SiteContext['purpose'] = 'publish'): SiteContext {
  return {
    site: { name: 'A site', language: 'en', home: '/' },
    look: testLook,
    paths: { home: '/', visit: '/visit/' },
    files: {},
    parts: {},
    navigation: [
      { label: 'Visit', path: '/visit/', current: true, inside: [] },
      {
        label: 'About & more',
        path: '/about/',
        current: false,
        inside: [{ label: 'People', path: '/about/people/', current: false, inside: [] }],
      },
    ],
    page: { id: 'visit', title: 'Visit' },
    tree: pageTree(TEST_PAGES),
    pictures: { pica: picture('pica'), picb: picture('picb') },
    fontBase: '/fonts/',
    purpose,
  }
}
