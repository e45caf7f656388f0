import { USUAL_SIZES, type Look } from '@gullyline/core'

const even = (px: number) => ({ from: px, to: px })

/**
 * Night blues and a lamp's gold. Every pair of a surface passes WCAG 2.2 AA; a test measures them. Measures of fonts are
 * those of their own tables, as the package @capsizecss/metrics 3 lists them.
 */
export const tarrowmoorLook: Look = {
  fonts: {
    words: {
      name: 'Figtree',
      fallback: 'system-ui,sans-serif',
      files: [{ file: 'figtree-latin-wght-normal.woff2', style: 'normal', weight: '300 900' }],
      metrics: { unitsPerEm: 1000, ascent: 950, descent: -250, lineGap: 0, letterWidth: 449, like: 'sans' },
    },
    titles: {
      name: 'Fraunces',
      fallback: 'Georgia,serif',
      files: [{ file: 'fraunces-latin-opsz-normal.woff2', style: 'normal', weight: '100 900' }],
      metrics: { unitsPerEm: 2000, ascent: 1956, descent: -510, lineGap: 0, letterWidth: 938, like: 'serif' },
    },
  },
  space: {
    none: even(0),
    hair: even(4),
    xs: even(8),
    s: even(16),
    m: { from: 20, to: 28 },
    l: { from: 28, to: 48 },
    xl: { from: 48, to: 88 },
    xxl: { from: 72, to: 136 },
  },
  type: {
    note: { size: { from: 14, to: 15 }, leading: 1.5, tracking: 0, weight: 400, family: 'words' },
    body: { size: { from: 16, to: 17 }, leading: 1.6, tracking: 0, weight: 400, family: 'words' },
    lead: { size: { from: 18, to: 22 }, leading: 1.5, tracking: 0, weight: 400, family: 'words' },
    minor: { size: { from: 19, to: 22 }, leading: 1.25, tracking: -0.005, weight: 560, family: 'titles' },
    title: { size: { from: 23, to: 30 }, leading: 1.2, tracking: -0.01, weight: 520, family: 'titles' },
    headline: { size: { from: 28, to: 42 }, leading: 1.14, tracking: -0.015, weight: 480, family: 'titles' },
    display: { size: { from: 38, to: 74 }, leading: 1.04, tracking: -0.025, weight: 440, family: 'titles' },
  },
  radius: { none: 0, s: 4, m: 8, l: 16, round: 999 },
  surfaces: {
    plain: {
      title: 'Paper',
      background: '#ffffff',
      ink: '#2b3152',
      quiet: '#5c6284',
      titleInk: '#12183a',
      link: '#2f4bb0',
      accent: '#8a5a0a',
      onAccent: '#ffffff',
      line: '#d9dcea',
    },
    tint: {
      title: 'Mist',
      background: '#f4f2ec',
      ink: '#2b3152',
      quiet: '#585e7f',
      titleInk: '#12183a',
      link: '#2a45a6',
      accent: '#85560a',
      onAccent: '#ffffff',
      line: '#dcd8cb',
    },
    night: {
      title: 'Night',
      background: '#0c1228',
      ink: '#d5d9ee',
      quiet: '#a3aaca',
      titleInk: '#ffffff',
      link: '#f2c879',
      accent: '#f2b950',
      onAccent: '#1b1405',
      line: '#2b3358',
    },
    lamp: {
      title: 'Lamp',
      background: '#f2c463',
      ink: '#2a2006',
      quiet: '#4d3d10',
      titleInk: '#1b1405',
      link: '#3a2c05',
      accent: '#151b3a',
      onAccent: '#ffffff',
      line: '#d3a443',
    },
  },
  pageSurface: 'plain',
  widths: { reading: 720, broad: 1160 },
  gutter: { from: 20, to: 48 },
  sizes: USUAL_SIZES,
  themes: {
    moss: {
      title: 'Moss',
      surfaces: {
        tint: {
          title: 'Moss',
          background: '#eef3e8',
          ink: '#29352a',
          quiet: '#53624f',
          titleInk: '#14301d',
          link: '#1f5a3a',
          accent: '#2f6b34',
          onAccent: '#ffffff',
          line: '#cfdac6',
        },
        night: {
          title: 'Wood at night',
          background: '#10241a',
          ink: '#d6e6d8',
          quiet: '#a5bda9',
          titleInk: '#ffffff',
          link: '#c4e38a',
          accent: '#b5db74',
          onAccent: '#14210a',
          line: '#2b4636',
        },
      },
    },
  },
}
