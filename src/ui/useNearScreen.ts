import { useEffect, useState, type RefObject } from 'react'

/** What is so near the part of a page that is looked at, px, counts as on the screen: it is there when it comes in. */
const MARGIN = 400

/** Whether an element has come on, or near, the screen; it stays so from then on. */
export function useNearScreen(element: RefObject<Element | null>): boolean {
  const [isNear, setIsNear] = useState(false)
  useEffect(() => {
    const target = element.current
    if (isNear || !target) return
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && setIsNear(true), {
      rootMargin: `${MARGIN}px`,
    })
    observer.observe(target)
    return () => observer.disconnect()
  }, [element, isNear])
  return isNear
}
