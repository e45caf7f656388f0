/**
 * What a page's HTML was made from besides its own document: recorded while it is rendered, and asked for again later to
 * see whether rendering it anew would give the same.
 */
import type { Json } from '../page/json.ts'
import type { SiteContext } from '../kit/site-context.ts'

/** One thing read of the site, such as the address of a page: `path:visit`. The navigation is read whole. */
export type ReadName = 'navigation' | `${'path' | 'picture' | 'file' | 'tree' | 'inside' | 'part'}:${string}`

/** What rendering may ask the site for by name; the rest of the context is the same for all pages of a theme. */
export type ReadableSite = Pick<SiteContext, 'paths' | 'pictures' | 'files' | 'parts' | 'tree' | 'navigation'>

export interface Recording {
  readonly context: SiteContext
  /** Everything read so far, sorted. */
  readonly reads: () => readonly ReadName[]
  /** The same, and forgets them. */
  readonly take: () => readonly ReadName[]
}

/** Returns a context that gives what the given one gives, and remembers what was asked for. */
export function recordReads(context: SiteContext): Recording {
  const names = new Set<ReadName>()
  const { tree } = context
  return {
    context: {
      ...context,
      paths: recorded(context.paths, (id) => names.add(`path:${id}`)),
      pictures: recorded(context.pictures, (id) => names.add(`picture:${id}`)),
      files: recorded(context.files, (id) => names.add(`file:${id}`)),
      parts: recorded(context.parts, (id) => names.add(`part:${id}`)),
      tree: {
        find: (id) => {
          names.add(`tree:${id}`)
          return tree.find(id)
        },
        inside: (id) => {
          names.add(`inside:${id}`)
          return tree.inside(id)
        },
      },
      get navigation() {
        names.add('navigation')
        return context.navigation
      },
    },
    reads: () => [...names].sort(),
    take: () => {
      const taken = [...names].sort()
      names.clear()
      return taken
    },
  }
}

/** Returns what a name stands for now; null where there is no such thing. */
export function readOf(site: Omit<ReadableSite, 'navigation'>, name: ReadName): Json {
  const at = name.indexOf(':')
  const id = name.slice(at + 1)
  switch (name.slice(0, at)) {
    case 'path':
      return own(site.paths, id)
    case 'picture':
      return own(site.pictures, id)
    case 'file':
      return own(site.files, id)
    case 'part':
      return own(site.parts, id)
    case 'tree':
      return treePage(site.tree.find(id))
    case 'inside':
      return site.tree.inside(id).map(treePage)
    default:
      throw new Error(`“${name}” is read by nothing`)
  }
}

function own(record: Readonly<Record<string, unknown>>, id: string): Json {
  return Object.hasOwn(record, id) ? (record[id] as Json) : null
}

/** A page as others can speak of it, and no more: the caller's may have more fields. */
function treePage(page: ReturnType<SiteContext['tree']['find']>): Json {
  if (!page) return null
  const { id, parentId, title, path, description } = page
  return { id, parentId, title, path, description }
}

function recorded<T extends object>(record: T, onRead: (id: string) => void): T {
  return new Proxy(record, {
    get: (target, key) => {
      if (typeof key === 'string') onRead(key)
      return Reflect.get(target, key) as unknown
    },
    has: (target, key) => {
      if (typeof key === 'string') onRead(key)
      return Reflect.has(target, key)
    },
    getOwnPropertyDescriptor: (target, key) => {
      if (typeof key === 'string') onRead(key)
      return Reflect.getOwnPropertyDescriptor(target, key)
    },
    ownKeys: () => {
      throw new Error('Rendering asks for one thing of the site at a time, so that it is known what it read')
    },
  })
}
