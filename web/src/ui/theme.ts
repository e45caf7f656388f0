import { createGlobalStyle } from 'styled-components'

/** Colours by what they are for. Both schemes are measured against WCAG 2.2 in test/theme-contrast.test.ts. */
export const SCHEMES = {
  light: {
    paper: '#fcfcf9',
    panel: '#f4f5f0',
    line: '#e2e5dc',
    lineStrong: '#c2c8bc',
    backdrop: '#d9ddd3',
    contour: '#cbd1c5',
    quiet: '#57615a',
    plain: '#29322e',
    strong: '#19211e',
    control: '#838c83',
    accent: '#0a6c7c',
    accentBright: '#0e8597',
    accentTint: '#d3eaed',
    onAccent: '#ffffff',
    clay: '#a83f22',
    clayTint: '#f8e1d8',
    ochre: '#835204',
    ochreTint: '#f7e9cb',
    moss: '#456329',
    mossTint: '#e3ecd8',
  },
  dark: {
    paper: '#171d1b',
    panel: '#1d2422',
    line: '#2c3532',
    lineStrong: '#47524d',
    backdrop: '#0f1413',
    contour: '#1b2321',
    quiet: '#a3afa8',
    plain: '#d8dfda',
    strong: '#f3f6f3',
    control: '#78857e',
    accent: '#5cc4d3',
    accentBright: '#6fd3e1',
    accentTint: '#16393f',
    onAccent: '#06181b',
    clay: '#f19a7e',
    clayTint: '#43241a',
    ochre: '#e9bc63',
    ochreTint: '#3b2d10',
    moss: '#a9cb86',
    mossTint: '#25331a',
  },
} as const

/** The strip under the top bar is dark in both schemes: nothing else is, so it is always found. */
export const STRIP = {
  ground: '#19211e',
  raised: '#2b3531',
  words: '#b9c4bc',
  line: '#d3dcd5',
  tick: '#5c6963',
  pointer: '#59c3d2',
  onPointer: '#06181b',
  error: '#e0714f',
  warning: '#e2b04a',
} as const

type Scheme = Readonly<Record<keyof (typeof SCHEMES)['light'], string>>

function variables(scheme: Scheme): string {
  return Object.entries(scheme)
    .map(([name, value]) => `--${name}: ${value};`)
    .join(' ')
}

export const GlobalStyle = createGlobalStyle`
  :root { ${variables(SCHEMES.light)} color-scheme: light dark; }
  @media (prefers-color-scheme: dark) { :root { ${variables(SCHEMES.dark)} } }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #app { height: 100%; }
  body {
    margin: 0; background: var(--paper); color: var(--plain);
    font: 450 13px/1.45 'Hanken Grotesk Variable', sans-serif;
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p { margin: 0; }
  h1, h2, h3 { font-weight: 650; color: var(--strong); }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus-visible { outline: 2px solid var(--accentBright); outline-offset: 2px; }
  a { color: var(--accent); }
  input { accent-color: var(--accent); }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { animation: none !important; transition: none !important; } }
`
