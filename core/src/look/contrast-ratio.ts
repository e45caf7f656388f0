/**
 * The contrast ratio of two colours `#rrggbb`, from 1 to 21: WCAG 2.2, "contrast ratio" and "relative luminance".
 * The threshold 0.04045 is the sRGB standard's (IEC 61966-2-1), which WCAG 2.2 names.
 */
export function contrastRatio(a: string, b: string): number {
  const [dark, light] = [relativeLuminance(a), relativeLuminance(b)].sort((x, y) => x - y)
  return (light! + 0.05) / (dark! + 0.05)
}

function relativeLuminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const share = parseInt(hex.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
}
