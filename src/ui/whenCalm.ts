/** A page is calm when it has had no long task (over 50 ms) for so long. */
const QUIET_MS = 500
/** It is taken for calm at the latest so long after it was asked. */
const MOST_MS = 5000

/** Calls back once a page that has just been opened has drawn itself; the returned function takes that back. */
export function whenCalm(onCalm: () => void): () => void {
  let isOver = false
  let quiet: ReturnType<typeof setTimeout> | undefined
  const stop = () => {
    isOver = true
    clearTimeout(quiet)
    clearTimeout(latest)
    observer.disconnect()
  }
  const end = () => {
    if (isOver) return
    stop()
    onCalm()
  }
  const waitOn = () => {
    clearTimeout(quiet)
    quiet = setTimeout(end, QUIET_MS)
  }
  const observer = new PerformanceObserver(waitOn)
  // Where a browser does not tell of long tasks, nothing is observed, and it is calm the first time.
  observer.observe({ type: 'longtask' })
  const latest = setTimeout(end, MOST_MS)
  waitOn()
  return stop
}
