/**
 * The width that a `sizes` attribute promises on this screen, as the browser computes it (HTML standard, "source size
 * list"). Runs in the page.
 */
export function promised(image: HTMLImageElement): number {
  const sizes = image.parentElement!.querySelector('source')!.sizes
  const entry = sizes
    .split(', ')
    .find((one) => !one.startsWith('(width') || matchMedia(/^\([^)]*\)/.exec(one)![0]).matches)!
  const probe = document.createElement('div')
  probe.style.width = entry.replace(/^\(width[^)]*\) /, '')
  probe.style.position = 'fixed'
  document.body.append(probe)
  const { width } = probe.getBoundingClientRect()
  probe.remove()
  return width
}
