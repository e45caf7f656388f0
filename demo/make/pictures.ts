/** Makes the pictures of the sample site: `npx tsx demo/make/pictures.ts`. Always the same ones. */
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  cluster,
  dome,
  hill,
  horizonGlow,
  lamps,
  milkyWay,
  moon,
  people,
  ridge,
  ringedPlanet,
  sky,
  stars,
} from './layers.ts'
import { paint, type Frame, type Shade } from './paint.ts'

const folder = join(fileURLToPath(new URL('.', import.meta.url)), '../pictures')
const WIDE: Frame = { width: 2200, height: 1320 }
const NORMAL: Frame = { width: 1920, height: 1440 }

const farHill = ridge(0.8, 0.035, 1.4, 4)
const nearHill = ridge(0.88, 0.045, 1.1, 9)

const PICTURES: Readonly<Record<string, { frame: Frame; layers: readonly Shade[] }>> = {
  'dome-under-the-milky-way': {
    frame: WIDE,
    layers: [
      sky('#060a1c', '#0b1434', '#1c2352', '#463a68'),
      stars(0.5, 0.86, 1),
      milkyWay(1.05, 0.34, -0.75, 3),
      horizonGlow(0.84, 0.13, '#c98a6a', 0.34),
      hill(farHill, '#1d2246', '#2a2b52'),
      dome(1.32, farHill(1.32) + 0.045, 0.062),
      hill(nearHill, '#0b0f22', '#0e1329'),
    ],
  },
  'moor-at-dusk': {
    frame: WIDE,
    layers: [
      sky('#22305f', '#56578f', '#b67f88', '#f0b585', '#f6d3a0'),
      stars(0.12, 0.4, 6),
      hill(ridge(0.62, 0.04, 1.7, 21), '#8a6f8f', '#b88f93'),
      hill(ridge(0.7, 0.05, 1.2, 22), '#5d5275', '#8d7186'),
      dome(0.52, 0.735, 0.055, '#ffdf9a'),
      hill(ridge(0.79, 0.05, 0.9, 23), '#3b3a5c', '#57496b'),
      hill(ridge(0.9, 0.05, 0.8, 24), '#20233f', '#2c2b49'),
    ],
  },
  'moon-at-first-quarter': {
    frame: NORMAL,
    layers: [sky('#05070f', '#070a16', '#090d1c'), stars(0.12, 2, 8), moon(0.667, 0.5, 0.4, 0.94)],
  },
  'saturn-and-its-rings': {
    frame: NORMAL,
    layers: [sky('#070818', '#0a0d22', '#0c1029'), stars(0.2, 2, 11), ringedPlanet(0.667, 0.5, 0.235, -0.32)],
  },
  'winter-cluster': {
    frame: NORMAL,
    layers: [sky('#070b22', '#0a1131', '#0b1233'), stars(0.55, 2, 14), cluster(0.667, 0.5, 40)],
  },
  'path-to-the-dome': {
    frame: NORMAL,
    layers: [
      sky('#0a1030', '#16204c', '#38366a', '#7a5a72'),
      stars(0.36, 0.72, 17),
      horizonGlow(0.72, 0.1, '#e0a070', 0.3),
      hill(ridge(0.7, 0.03, 1.5, 31), '#23264c', '#33305a'),
      dome(0.93, 0.735, 0.1),
      hill(ridge(0.76, 0.03, 1, 32), '#11162f', '#151a36'),
      lamps([
        [0.16, 0.97],
        [0.33, 0.905],
        [0.47, 0.865],
        [0.58, 0.835],
        [0.67, 0.815],
        [0.745, 0.8],
        [0.8, 0.79],
      ]),
    ],
  },
  'open-night': {
    frame: NORMAL,
    layers: [
      sky('#070c24', '#101a46', '#2a2c60', '#5c4870'),
      stars(0.5, 0.8, 25),
      milkyWay(0.5, 0.3, 0.9, 13),
      horizonGlow(0.82, 0.09, '#d79a6e', 0.28),
      hill(ridge(0.83, 0.02, 1.3, 41), '#0e1329', '#0e1329'),
      people([
        [0.38, 0.87, 0.13],
        [0.44, 0.875, 0.1],
        [0.52, 0.87, 0.125],
        [0.8, 0.872, 0.135],
        [0.87, 0.875, 0.12],
        [0.93, 0.872, 0.09],
      ]),
      hill(ridge(0.875, 0.012, 1.2, 42), '#080b19'),
    ],
  },
}

const wanted = process.argv.slice(2)
for (const [name, { frame, layers }] of Object.entries(PICTURES)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue
  await paint(join(folder, `${name}.jpg`), frame, layers)
  console.log(name)
}
