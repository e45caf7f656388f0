/**
 * What each `import()` of the editor goes through when it is built, in place of the bundler's own helper (see vite.config.ts).
 *
 * A browser may remember a module that could not be fetched, and never ask for it again while the page is open (HTML
 * standard, "fetch a single module script": the module map keeps it as null). Links of the types `modulepreload` and
 * `preload` can be remembered in the same way. So a file is fetched first as any other, and imported once it is there: the
 * browser has it in its cache by then.
 */
const fetches = new Map<string, Promise<void>>()

/**
 * Imports a module once its files are there: its own, and those that it imports. Rejects with a TypeError, as `import()`
 * does, where one can't be had; asking again fetches that one again.
 */
export async function importFetched<T>(load: () => Promise<T>, files: readonly string[] = []): Promise<T> {
  await Promise.all(files.map(fetchOnce))
  return load()
}

function fetchOnce(file: string): Promise<void> {
  const known = fetches.get(file)
  if (known) return known
  const fetching = fetchFile(`/${file}`).catch((error: unknown) => {
    fetches.delete(file)
    throw error
  })
  fetches.set(file, fetching)
  return fetching
}

async function fetchFile(address: string): Promise<void> {
  // The page names what it begins with, and the browser fetches that already.
  if (document.querySelector(`:is(link[href="${address}"], script[src="${address}"])`)) return
  if (address.endsWith('.css')) return applyStyles(address)
  const answer = await fetch(address).catch(() => undefined)
  if (!answer?.ok) throw unreachable(address)
  // Read to its end, a file stays in the browser's cache.
  await answer.arrayBuffer().catch(() => {
    throw unreachable(address)
  })
}

function applyStyles(address: string): Promise<void> {
  const link = document.createElement('link')
  link.rel = 'stylesheet'
  link.href = address
  document.head.append(link)
  return new Promise((resolve, reject) => {
    link.addEventListener('load', () => resolve(), { once: true })
    link.addEventListener(
      'error',
      () => {
        link.remove()
        reject(unreachable(address))
      },
      { once: true },
    )
  })
}

function unreachable(address: string): TypeError {
  return new TypeError(`Failed to fetch a file of a module: ${address}`)
}
