/** What the pictures are made of: skies, stars, hills, a dome, a moon, a ringed planet. */
import { chance, cloud, mix, rise } from './noise.ts'
import { blend, glow, hex, type Colour, type Shade } from './paint.ts'

/** A sky from colours spread evenly from top to bottom. */
export function sky(...stops: readonly string[]): Shade {
  const colours = stops.map(hex)
  return (_x, y) => {
    const at = Math.min(0.9999, Math.max(0, y)) * (colours.length - 1)
    return blend(colours[Math.floor(at)]!, colours[Math.floor(at) + 1]!, at % 1)
  }
}

/** Stars, a few of them bright; none below `until`, where the air is thick. */
export function stars(density: number, until: number, seed: number): Shade {
  const cell = 0.016
  return (x, y, under) => {
    let out = under
    const [cx, cy] = [Math.floor(x / cell), Math.floor(y / cell)]
    for (let i = cx - 1; i <= cx + 1; i++) {
      for (let j = cy - 1; j <= cy + 1; j++) {
        if (chance(i, j, seed) > density) continue
        const [sx, sy] = [(i + chance(i, j, seed + 1)) * cell, (j + chance(i, j, seed + 2)) * cell]
        const size = chance(i, j, seed + 3) ** 9
        const far = ((x - sx) ** 2 + (y - sy) ** 2) / (0.0000007 + size * 0.0000035)
        if (far > 14) continue
        const fade = 1 - rise(until - 0.25, until, y)
        const warm = chance(i, j, seed + 4)
        const colour: Colour = [0.85 + 0.15 * warm, 0.88, 1 - 0.15 * warm]
        out = glow(out, colour, Math.exp(-far) * (0.25 + 0.75 * chance(i, j, seed + 5) + size) * fade)
      }
    }
    return out
  }
}

/** A band of faint light with dark lanes in it, through (cx, cy) at a slope. */
export function milkyWay(cx: number, cy: number, slope: number, seed: number): Shade {
  const length = Math.hypot(1, slope)
  return (x, y, under) => {
    const across = (y - cy - slope * (x - cx)) / length
    const along = (x - cx + slope * (y - cy)) / length
    const wander = 0.05 * (cloud(along * 3, 1, seed) - 0.5)
    const band = Math.exp(-(((across + wander) / 0.13) ** 2))
    const body = cloud(along * 4 + 9, across * 7, seed + 7)
    const lane =
      rise(0.46, 0.68, cloud(along * 3 + 40, across * 9, seed + 20)) * Math.exp(-((across / 0.06) ** 2))
    const strength = band * (0.1 + 0.55 * rise(0.35, 0.8, body)) * (1 - 0.75 * lane)
    return glow(under, blend(hex('#5a6bb8'), hex('#e8d9c8'), rise(0.45, 0.8, body)), strength * 0.62)
  }
}

/** Light along the horizon. */
export function horizonGlow(y0: number, height: number, colour: string, strength: number): Shade {
  const light = hex(colour)
  return (_x, y, under) => glow(under, light, strength * Math.exp(-(((y - y0) / height) ** 2)))
}

/** The height of a ridge at x. */
export function ridge(base: number, swing: number, scale: number, seed: number): (x: number) => number {
  return (x) => base + swing * (cloud(x * scale, 3, seed, 4) - 0.5) * 2
}

/** Everything below a ridge, a little lighter towards its foot when `mist` is given. */
export function hill(top: (x: number) => number, colour: string, mist?: string): Shade {
  const ground = hex(colour)
  const haze = hex(mist ?? colour)
  return (x, y, under) => {
    const edge = rise(-0.0008, 0.0012, y - top(x))
    if (edge === 0) return under
    const texture = 0.94 + 0.12 * cloud(x * 26, y * 50, 77, 3)
    const at = blend(ground, haze, rise(0, 0.16, y - top(x)) * 0.8)
    return blend(under, [at[0] * texture, at[1] * texture, at[2] * texture], edge)
  }
}

/** A dome with an open, lit slit, standing at (cx, foot); `r` is its radius. */
export function dome(cx: number, foot: number, r: number, lamp = '#ffbf5e'): Shade {
  const body = hex('#0d1222')
  const rim = hex('#39456e')
  const light = hex(lamp)
  const wall = r * 0.62
  return (x, y, under) => {
    const [dx, dy] = [x - cx, y - (foot - wall)]
    const away = Math.hypot(dx, Math.min(0, dy))
    const inDome = dy <= 0 ? 1 - rise(r - 0.001, r + 0.001, away) : 0
    const inWall = dy > 0 && y < foot && Math.abs(dx) < r * 0.94 ? 1 : 0
    const halo = Math.exp(-((Math.hypot(dx - r * 0.25, dy + r * 0.6) / (r * 1.5)) ** 2))
    let out = glow(under, light, 0.16 * halo * (1 - Math.max(inDome, inWall)))
    out = blend(
      out,
      blend(body, rim, rise(0.55, 1, away / r) * rise(-0.2, 0.9, -dx / r) * inDome),
      Math.max(inDome, inWall),
    )
    const slant = dx - r * 0.32 - dy * -0.28
    if (inDome > 0 && Math.abs(slant) < r * 0.13 && dy < -r * 0.12) {
      out = blend(out, light, (1 - rise(r * 0.1, r * 0.13, Math.abs(slant))) * (0.75 + (0.25 * -dy) / r))
    }
    const door = Math.abs(dx + r * 0.45) < r * 0.1 && y > foot - wall * 0.72 && y < foot
    return door ? blend(out, light, 0.85) : out
  }
}

/** A sphere lit from one side, with craters and darker plains. */
export function moon(cx: number, cy: number, r: number, lightX: number): Shade {
  const lightZ = Math.sqrt(1 - lightX * lightX)
  const craters = Array.from({ length: 130 }, (_unused, i) => {
    const [a, b, c] = [chance(i, 1, 5), chance(i, 2, 5), chance(i, 3, 5)]
    const spread = Math.sqrt(a) * 0.97
    return { x: Math.cos(b * 6.283) * spread, y: Math.sin(b * 6.283) * spread, r: 0.012 + 0.085 * c ** 4 }
  })
  return (x, y, under) => {
    const [u, v] = [(x - cx) / r, (y - cy) / r]
    const d = u * u + v * v
    if (d > 1.02) return glow(under, [0.5, 0.55, 0.7], 0.1 * Math.exp(-(Math.sqrt(d) - 1) * 5))
    const z = Math.sqrt(Math.max(0, 1 - d))
    let [nx, bright] = [u, 1 - 0.45 * rise(0.46, 0.64, cloud(u * 1.7 + 5, v * 1.7 + 5, 31, 4))]
    bright *= 0.86 + 0.28 * cloud(u * 14, v * 14, 12, 4)
    for (const crater of craters) {
      const [kx, ky] = [(u - crater.x) / crater.r, (v - crater.y) / crater.r]
      const k = kx * kx + ky * ky
      if (k > 1.9) continue
      nx += (k < 1 ? -kx : kx * (1.9 - k) * 0.9) * 0.32
      if (k < 1) bright *= 0.9
    }
    const lit = Math.max(0, nx * lightX + z * lightZ)
    const shade = bright * (0.012 + 1.02 * lit ** 0.85)
    return blend([shade * 0.99, shade * 0.96, shade * 0.9], under, rise(0.985, 1.01, d))
  }
}

/** A banded planet with rings, tilted; the planet throws its shadow on them. */
export function ringedPlanet(cx: number, cy: number, r: number, tilt: number): Shade {
  const [c, s] = [Math.cos(tilt), Math.sin(tilt)]
  const open = 0.34
  return (x, y, under) => {
    const [dx, dy] = [(x - cx) / r, (y - cy) / r]
    const [u, v] = [dx * c + dy * s, -dx * s + dy * c]
    const far = Math.hypot(u, v / open)
    const ring = ringLight(far)
    const inFront = v > 0
    const d = u * u + v * v
    const behind = (u - 0.55) ** 2 / 1 + (v + 0.1) ** 2 < 0.62 && !inFront
    let out = blend(
      under,
      [0.86 * ring.tone, 0.78 * ring.tone, 0.64 * ring.tone],
      behind ? ring.cover * 0.15 : ring.cover,
    )
    if (d < 1.01 && !(inFront && ring.cover > 0.25)) {
      const z = Math.sqrt(Math.max(0, 1 - d))
      const bands =
        0.82 + 0.16 * Math.sin(v * 17 + 1.2 * cloud(u * 3, v * 9, 3)) + 0.1 * (cloud(u * 2, v * 22, 8) - 0.5)
      const lit = Math.max(0, -0.5 * u - 0.25 * v + 0.83 * z)
      const shadow = 1 - 0.55 * Math.exp(-(((v - 0.12 - 0.18 * z) / 0.07) ** 2))
      const tone = bands * (0.04 + 1.05 * lit) * shadow
      out = blend([0.93 * tone, 0.8 * tone, 0.58 * tone], out, rise(0.975, 1.01, d))
    }
    return out
  }
}

function ringLight(far: number): { tone: number; cover: number } {
  const inside = rise(1.28, 1.34, far) * (1 - rise(2.26, 2.29, far))
  const gap = Math.exp(-(((far - 1.98) / 0.032) ** 2))
  const grooves = cloud(far * 34, 1, 6, 3)
  return {
    tone: 0.72 + 0.45 * grooves - 0.2 * rise(2, 2.2, far),
    cover: inside * (1 - 0.93 * gap) * mix(0.62, 0.96, grooves),
  }
}

/** Bright young stars wrapped in blue haze. */
export function cluster(cx: number, cy: number, seed: number): Shade {
  const bright = Array.from({ length: 11 }, (_unused, i) => ({
    x: cx + (chance(i, 1, seed) - 0.5) * 0.8,
    y: cy + (chance(i, 2, seed) - 0.5) * 0.55,
    light: 0.4 + chance(i, 3, seed),
  }))
  return (x, y, under) => {
    let out = under
    const veil = cloud(x * 6, y * 11 + x * 3, seed + 30)
    for (const star of bright) {
      const far = Math.hypot(x - star.x, y - star.y)
      const spike =
        Math.exp(-Math.abs(x - star.x) * 420) * Math.exp(-Math.abs(y - star.y) * 38) +
        Math.exp(-Math.abs(y - star.y) * 420) * Math.exp(-Math.abs(x - star.x) * 38)
      out = glow(out, [0.5, 0.66, 1], star.light * (0.34 * veil * Math.exp(-far * 13) + 0.5 * spike))
      out = glow(
        out,
        [0.92, 0.95, 1],
        star.light * 1.5 * Math.exp(-((far / (0.004 + 0.003 * star.light)) ** 2)),
      )
    }
    return out
  }
}

/** A row of small lamps along a path, with their light on the ground. */
export function lamps(points: readonly (readonly [number, number])[]): Shade {
  return (x, y, under) =>
    points.reduce((out, [px, py]) => {
      const far = Math.hypot(x - px, (y - py) * 1.6)
      return far > 0.12
        ? out
        : glow(out, hex('#ffb650'), 0.95 * Math.exp(-far * 260) + 0.16 * Math.exp(-far * 34))
    }, under)
}

/** People as they stand in the dark: small round-shouldered shapes, feet at the given points. */
export function people(points: readonly (readonly [number, number, number])[], colour = '#070a14'): Shade {
  const dark = hex(colour)
  return (x, y, under) => {
    const inside = points.some(([px, py, tall]) => {
      const [dx, up] = [Math.abs(x - px) / tall, (py - y) / tall]
      if (up < 0 || up > 1.02) return false
      if (up > 0.86) return dx ** 2 + (up - 0.93) ** 2 < 0.0048
      return dx < 0.14 * Math.sqrt(Math.min(1, 0.15 + (0.86 - up) * 7)) * (up < 0.45 ? 0.82 : 1)
    })
    return inside ? dark : under
  }
}
