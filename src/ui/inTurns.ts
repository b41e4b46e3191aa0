/** So long the page is held at most before somebody else has a turn, ms. */
const MAX_HOLD = 12

/** All that `steps` give, made a little at a time so that the page stays free; null once it `isOver`. */
export async function inTurns<T>(steps: Iterable<T>, isOver: () => boolean = () => false): Promise<T[] | null> {
  const made: T[] = []
  let since = performance.now()
  for (const one of steps) {
    made.push(one)
    if (performance.now() - since < MAX_HOLD) continue
    await new Promise((resolve) => setTimeout(resolve))
    if (isOver()) return null
    since = performance.now()
  }
  return made
}
