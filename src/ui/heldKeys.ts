import type { KeyboardEvent } from 'react'

/** Where arrow keys lead: a step to the right and a step down. */
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Shift makes a step of an arrow key so much longer. */
const LONG_STEP = 10

/** An arrow key that was pressed on something: which way, how many of its steps, and whether Alt was held. */
export interface ArrowStep {
  dx: number
  dy: number
  times: number
  alt: boolean
}

/** What keys can do to something that has the focus. */
export interface HeldActions {
  /** False where this arrow does nothing here: the key then does what it does on the screen. */
  arrow?: (step: ArrowStep) => boolean | void
  zoom?: (direction: 1 | -1, alt: boolean) => void
  open?: (target: HTMLElement) => void
  remove?: () => void
}

/** The keys that act on what has the focus, as people are told of them. */
export const HELD_KEYS: Readonly<Record<keyof HeldActions, string>> = {
  arrow: 'Arrows',
  zoom: '+ −',
  open: 'Enter',
  remove: 'Delete',
}

const ZOOMS: Readonly<Record<string, 1 | -1>> = { '+': 1, '=': 1, '-': -1 }

/**
 * Listens for the keys of something that is dragged, opened or removed when it has the focus. Keys that do something
 * are kept from the screen; with Ctrl, and inside what is in it, they are the screen's.
 */
export function heldKeys({ arrow, zoom, open, remove }: HeldActions): (event: KeyboardEvent<HTMLElement>) => void {
  const doWhat = (event: KeyboardEvent<HTMLElement>): boolean => {
    const step = ARROWS[event.key]
    const times = event.shiftKey ? LONG_STEP : 1
    if (step && arrow) return arrow({ dx: step[0], dy: step[1], times, alt: event.altKey }) !== false
    const direction = ZOOMS[event.key]
    if (direction && zoom) zoom(direction, event.altKey)
    else if (event.key === 'Enter' && open) open(event.currentTarget)
    else if ((event.key === 'Delete' || event.key === 'Backspace') && remove) remove()
    else return false
    return true
  }
  return (event) => {
    if (event.ctrlKey || event.metaKey || event.target !== event.currentTarget || !doWhat(event)) return
    event.preventDefault()
    event.stopPropagation()
  }
}
