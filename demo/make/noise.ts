/** Smooth chance, the same every time: value noise and sums of it in octaves. */

/** A number from 0 to 1 for a point of the integer grid. */
export function chance(x: number, y: number, seed: number): number {
  let h = Math.imul(x, 374761393) ^ Math.imul(y, 668265263) ^ Math.imul(seed, 2246822519)
  h = Math.imul(h ^ (h >>> 13), 1274126177)
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296
}

/** Smooth noise from 0 to 1, one bump for each unit. */
function noise(x: number, y: number, seed: number): number {
  const [left, top] = [Math.floor(x), Math.floor(y)]
  const [u, v] = [ease(x - left), ease(y - top)]
  return mix(
    mix(chance(left, top, seed), chance(left + 1, top, seed), u),
    mix(chance(left, top + 1, seed), chance(left + 1, top + 1, seed), u),
    v,
  )
}

/** Noise in octaves, each twice as fine and half as strong; from 0 to 1. */
export function cloud(x: number, y: number, seed: number, octaves = 5): number {
  let sum = 0
  let weight = 0.5
  for (let octave = 0; octave < octaves; octave++) {
    sum += weight * noise(x, y, seed + octave)
    x *= 2.03
    y *= 2.03
    weight /= 2
  }
  return sum / (1 - 0.5 ** octaves)
}

export function mix(a: number, b: number, share: number): number {
  return a + (b - a) * share
}

/** 0 below `from`, 1 above `to`, smooth between. */
export function rise(from: number, to: number, value: number): number {
  return ease(Math.min(1, Math.max(0, (value - from) / (to - from))))
}

function ease(t: number): number {
  return t * t * (3 - 2 * t)
}
