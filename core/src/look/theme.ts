import type { Look } from './look.ts'

/** The look of a page with a theme: what the theme names is its own, all else stays the site's. Unknown themes change nothing. */
export function themedLook(look: Look, theme: string | null | undefined): Look {
  const found =
    theme !== null && theme !== undefined && look.themes && Object.hasOwn(look.themes, theme)
      ? look.themes[theme]
      : undefined
  if (!found) return look
  return {
    ...look,
    surfaces: { ...look.surfaces, ...found.surfaces },
    pageSurface: found.pageSurface ?? look.pageSurface,
  }
}
