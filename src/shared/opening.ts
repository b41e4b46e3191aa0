/** Tabs tell each other here that a screen is being opened, and that it has drawn itself. */
const CHANNEL = 'brimble-opening'

/** Work gives way for so long at most: a tab may be closed before it has said that it is calm. */
const MOST_MS = 5000

/** Tells other tabs that this one opens a screen; the returned function tells that it has. */
export function tellOfOpening(): () => void {
  const channel = new BroadcastChannel(CHANNEL)
  channel.postMessage('opening')
  return () => {
    channel.postMessage('open')
    channel.close()
  }
}

/** Calls back when another tab begins to open a screen (true), and when it has, or has had its time (false). */
export function onOpening(listener: (isOpening: boolean) => void): void {
  let over: ReturnType<typeof setTimeout> | undefined
  new BroadcastChannel(CHANNEL).onmessage = ({ data }) => {
    clearTimeout(over)
    if (data === 'opening') over = setTimeout(() => listener(false), MOST_MS)
    listener(data === 'opening')
  }
}
