/** Tarrowmoor Observatory: the sample site. Invented; every word and picture is our own. */
import { createRequire } from 'node:module'
import { fileURLToPath } from 'node:url'
import { tarrowmoorLook } from './look.ts'
import { FILE_IDS, PAGE_IDS } from './page-parts.ts'
import { footer, header } from './header-and-footer.ts'
import { pages } from './pages.ts'
import { parts } from './shared-parts.ts'

export interface DemoPicture {
  readonly id: string
  readonly file: string
  readonly alt: string
}

const picture = (id: string, name: string, alt: string): DemoPicture => ({
  id,
  file: fileURLToPath(new URL(`../pictures/${name}.jpg`, import.meta.url)),
  alt,
})

const require = createRequire(import.meta.url)
const fontFile = (family: string, file: string) =>
  require.resolve(`@fontsource-variable/${family}/files/${file}`)

export const demoSite = {
  id: 'tarrowmoor',
  name: 'Tarrowmoor Observatory',
  language: 'en',
  look: tarrowmoorLook,
  header,
  headerId: 'tmheader',
  footer,
  footerId: 'tmfooter',
  homePageId: PAGE_IDS.home,
  pages: pages,
  parts,
  navigation: [
    ...(['visit', 'openNights', 'instruments', 'news', 'about', 'questions'] as const).map((name) => ({
      page: PAGE_IDS[name],
    })),
  ],
  pictures: [
    picture('tmdome', 'dome-under-the-milky-way', 'The dome with its slit open under the Milky Way'),
    picture('tmdusk', 'moor-at-dusk', 'The dome on the moor as the last light goes'),
    picture('tmmoon', 'moon-at-first-quarter', 'The Moon half lit, with craters along the line of shadow'),
    picture('tmsaturn', 'saturn-and-its-rings', 'A banded planet with wide bright rings'),
    picture('tmcluster', 'winter-cluster', 'Eleven bright stars wrapped in blue haze'),
    picture('tmpath', 'path-to-the-dome', 'A row of small lamps leading over the moor to a lit dome'),
    picture('tmnight', 'open-night', 'Visitors standing on the ridge under the Milky Way'),
  ],
  files: [
    {
      id: FILE_IDS.nights,
      file: fileURLToPath(new URL('../files/open-nights.ics', import.meta.url)),
    },
  ],
  fontFiles: [
    fontFile('fraunces', 'fraunces-latin-opsz-normal.woff2'),
    fontFile('figtree', 'figtree-latin-wght-normal.woff2'),
  ],
}
