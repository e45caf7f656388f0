/**
 * What each `import()` of the editor goes through when it is built, in place of the bundler's own helper (see vite.config.ts).
 *
 * A browser may remember a module that could not be fetched, and never ask for it again while the page is open (HTML
 * standard, "fetch a single module script": the module map keeps it as null). Links of the types `modulepreload` and
 * `preload` can be remembered in the same way. So a file is fetched for another document first, and imported once it is
 * there: the browser has it at hand by then.
 */
const fetches = new Map<string, Promise<void>>()

/** A document out of sight, and how many files are on their way to it. */
interface Aside {
  readonly frame: HTMLIFrameElement
  waiting: number
}
/** Where files are asked for now. A new one takes its place when one of them can't be had. */
let aside: Aside | undefined

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
  await (address.endsWith('.css') ? addLink(document, 'stylesheet', address) : preloadAside(address))
}

/**
 * Fetches a script for a document that is thrown away, with all that it remembers. Not with `fetch()`: after it Chromium
 * compiles the script anew, each time the editor is opened, instead of using what it keeps compiled.
 */
async function preloadAside(address: string): Promise<void> {
  const used = (aside ??= openAside())
  const leave = () => {
    if (aside === used) aside = undefined
  }
  used.waiting++
  try {
    await addLink(used.frame.contentDocument!, 'preload', address)
  } catch (error) {
    leave()
    throw error
  } finally {
    if (--used.waiting === 0) {
      leave()
      used.frame.remove()
    }
  }
}

function openAside(): Aside {
  const frame = document.createElement('iframe')
  frame.hidden = true
  document.body.append(frame)
  return { frame, waiting: 0 }
}

function addLink(to: Document, rel: 'stylesheet' | 'preload', address: string): Promise<void> {
  const link = to.createElement('link')
  // A module is asked for with the same mode, or it would be fetched twice.
  if (rel === 'preload') Object.assign(link, { as: 'script', crossOrigin: 'anonymous' })
  Object.assign(link, { rel, href: address })
  to.head.append(link)
  return new Promise((resolve, reject) => {
    link.addEventListener('load', () => resolve(), { once: true })
    link.addEventListener(
      'error',
      () => {
        link.remove()
        reject(new TypeError(`Failed to fetch a file of a module: ${address}`))
      },
      { once: true },
    )
  })
}
