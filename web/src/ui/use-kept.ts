import { useState } from 'react'

/** The value of before for as long as the new one says the same: what is made of it is not made again. */
export function useKept<T>(value: T): T {
  const [kept, setKept] = useState(value)
  if (Object.is(kept, value) || JSON.stringify(kept) === JSON.stringify(value)) return kept
  setKept(value)
  return value
}
