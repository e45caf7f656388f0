import { mergeLists } from '../compare/merge-lists.ts'
import type { NavigationItem } from './navigation.ts'

interface NavigationSides {
  readonly base: readonly NavigationItem[]
  readonly ours: readonly NavigationItem[]
  readonly theirs: readonly NavigationItem[]
}

/**
 * The navigation that two people changed, merged line by line: a line that one of them added stays, one that either
 * removed is gone, and where both put lines in another order, ours holds.
 */
export function mergeNavigation({ base, ours, theirs }: NavigationSides): readonly NavigationItem[] {
  const items = new Map([...base, ...theirs, ...ours].map((item) => [keyOf(item), item]))
  const [b, o, t] = [base, ours, theirs].map((list) => [...new Set(list.map(keyOf))])
  const isGone = (key: string): boolean => b!.includes(key) && !(o!.includes(key) && t!.includes(key))
  const kept = (list: readonly string[]): string[] => list.filter((key) => !isGone(key))
  const { list } = mergeLists({ base: kept(b!), ours: kept(o!), theirs: kept(t!) }, () => true)
  return list.map((key) => items.get(key)!)
}

/** A page is one line, whatever it is called; any other line is all that it says. */
function keyOf(item: NavigationItem): string {
  return 'page' in item && item.anchor === undefined ? `page ${item.page}` : JSON.stringify(item)
}
