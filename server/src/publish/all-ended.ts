/**
 * Waits until every one of these has ended, and gives what came of them. Rejects with what the first of those said that
 * failed: nothing goes on any more then, so what they made can be removed.
 */
export async function allEnded<T>(under: readonly Promise<T>[]): Promise<T[]> {
  const all = await Promise.allSettled(under)
  return all.map((one) => {
    if (one.status === 'rejected') throw one.reason
    return one.value
  })
}
