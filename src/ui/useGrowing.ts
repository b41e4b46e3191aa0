import { useEffect, useState } from 'react'

/** Parts that are drawn at once. */
const STEP = 10

/** How many parts of a long list to draw: a few at once and more after each picture, so that the first are soon there and keys never wait for the rest. */
export function useGrowing(count: number): number {
  const [most, setMost] = useState(STEP)
  useEffect(() => {
    if (most >= count) return
    const timer = setTimeout(() => setMost(most + STEP))
    return () => clearTimeout(timer)
  }, [most, count])
  return Math.min(most, count)
}
