import type { Options } from 'react-hotkeys-hook'

const PRESSED_BY_KEY =
  'button, a[href], summary, [role="button"], [role="menuitem"], [role="option"], [role="tab"], [role="switch"], [role="checkbox"]'

/**
 * Space and Enter belong to a button or link that the keyboard has brought the focus to. After a click the focus is
 * on the button too, but the hand that then presses Space means the screen.
 */
function pressesWhatHasFocus({ key, target, ctrlKey, metaKey }: KeyboardEvent): boolean {
  return (
    (key === ' ' || key === 'Enter') &&
    !ctrlKey &&
    !metaKey &&
    target instanceof Element &&
    target.matches(PRESSED_BY_KEY) &&
    target.matches(':focus-visible')
  )
}

/**
 * React listens at the document; a key that something with the focus uses itself, and stops, would still be heard
 * there. So the screen listens one step farther out. The library calls the option a document, and needs no more than
 * somewhere to listen.
 */
const BEYOND_THE_DOCUMENT = (typeof window === 'undefined' ? undefined : window) as unknown as Document | undefined

/**
 * How a whole screen listens for its keys. Edges that are dragged are sliders to assistive technology; the library
 * would leave all keys to them.
 */
export const SCREEN_KEYS: Options = {
  preventDefault: true,
  enableOnFormTags: ['slider'],
  ignoreEventWhen: pressesWhatHasFocus,
  document: BEYOND_THE_DOCUMENT,
}
