import { startTransition, useEffect, useState } from 'react'

/**
 * How many parts of a long list to draw: `step` at once and as many more after each picture, so that the first are
 * soon there and keys never wait for the rest.
 */
export function useGrowing(count: number, step = 10): number {
  const [most, setMost] = useState(step)
  useEffect(() => {
    if (most >= count) return
    const timer = setTimeout(() => startTransition(() => setMost(most + step)))
    return () => clearTimeout(timer)
  }, [most, count, step])
  return Math.min(most, count)
}
