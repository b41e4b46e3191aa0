import type { Options } from 'react-hotkeys-hook'

const PRESSED_BY_KEY = 'button, a[href], summary, [role="button"], [role="menuitem"], [role="option"], [role="tab"], [role="switch"], [role="checkbox"]'

/**
 * Space and Enter belong to a button or link that the keyboard has brought the focus to. After a click the focus is on the button too,
 * but the hand that then presses Space means the screen.
 */
function pressesWhatHasFocus({ key, target, ctrlKey, metaKey }: KeyboardEvent): boolean {
  return (key === ' ' || key === 'Enter') && !ctrlKey && !metaKey && target instanceof Element && target.matches(PRESSED_BY_KEY) && target.matches(':focus-visible')
}

/** How a whole screen listens for its keys. Edges that are dragged are sliders to assistive technology; the library would leave all keys to them. */
export const SCREEN_KEYS: Options = { preventDefault: true, enableOnFormTags: ['slider'], ignoreEventWhen: pressesWhatHasFocus }
