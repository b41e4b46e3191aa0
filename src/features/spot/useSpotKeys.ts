import { useHotkeys } from 'react-hotkeys-hook'
import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { SCREEN_KEYS } from '@/ui/screenKeys'
import { panStretch, zoomStretch, type SpotContextValue } from './spotContext'
import type { SpotActions } from './useSpotActions'

/** Every key of the Spot screen with what it does, as the list behind `?` shows them. */
export const SPOT_KEYS: readonly { keys: string; does: string }[] = [
  { keys: 'Space', does: 'Play, pause' },
  { keys: 'J K L', does: 'Play backwards, pause, play forwards; again for faster' },
  { keys: '← →', does: 'One frame back, on; with Shift one second' },
  { keys: 'Enter', does: 'Next moment, played from its start; with Shift the one before' },
  { keys: 'Y', does: 'Keep the moment that is picked up' },
  { keys: 'N', does: 'Drop it' },
  { keys: 'I O', does: 'Set its in or out point here' },
  { keys: 'M', does: 'Mark a moment: what happened a little before now' },
  { keys: '+ −', does: 'Magnify more, less' },
  { keys: 'PgUp PgDn', does: 'Magnify the stretch before, after' },
  { keys: 'Home End', does: 'Go to the start or end' },
  { keys: 'Ctrl + Z', does: 'Undo; with Shift redo' },
  { keys: 'Ctrl + Enter', does: 'Cut the moments that are kept into highlights' },
  { keys: 'Esc', does: 'Let go' },
  { keys: '?', does: 'This list' },
]

const MAX_RATE = 8

export function useSpotKeys(
  { recording, session, player, view }: SpotContextValue,
  actions: SpotActions,
  open: { cut: () => void; keys: () => void },
): void {
  const { durationMicros } = recording
  const step = (by: number) => {
    player.pause()
    player.seek(player.positionMicros + by)
    followWith(player.positionMicros)
  }
  const followWith = (t: number) => {
    const { fromMicros, toMicros } = view.getState()
    if (t < fromMicros || t > toMicros) panStretch(view, durationMicros, t - (fromMicros + toMicros) / 2)
  }
  const shuttle = (direction: 1 | -1) => {
    const { kind, rate } = player.getState()
    const faster = kind === 'playing' && Math.sign(rate) === direction ? Math.min(MAX_RATE, Math.abs(rate) * 2) : 1
    void player.play(direction * faster)
  }
  const zoom = (factor: number) => zoomStretch(view, durationMicros, factor, player.positionMicros)
  const pan = (by: number) => {
    const { fromMicros, toMicros } = view.getState()
    panStretch(view, durationMicros, by * (toMicros - fromMicros) * 0.8)
  }
  useHotkeys('space', () => player.toggle(), SCREEN_KEYS)
  useHotkeys('j', () => shuttle(-1), SCREEN_KEYS)
  useHotkeys('k', () => player.pause(), SCREEN_KEYS)
  useHotkeys('l', () => shuttle(1), SCREEN_KEYS)
  useHotkeys('left', () => step(-oneFrame(recording)), SCREEN_KEYS)
  useHotkeys('right', () => step(oneFrame(recording)), SCREEN_KEYS)
  useHotkeys('shift+left', () => step(-MICROS_PER_SECOND), SCREEN_KEYS)
  useHotkeys('shift+right', () => step(MICROS_PER_SECOND), SCREEN_KEYS)
  useHotkeys('enter', actions.next, SCREEN_KEYS)
  useHotkeys('shift+enter', actions.previous, SCREEN_KEYS)
  useHotkeys('y', actions.keepSelected, SCREEN_KEYS)
  useHotkeys('n', actions.dropSelected, SCREEN_KEYS)
  useHotkeys('i', () => actions.setEdge('in'), SCREEN_KEYS)
  useHotkeys('o', () => actions.setEdge('out'), SCREEN_KEYS)
  useHotkeys('m', actions.mark, SCREEN_KEYS)
  useHotkeys('equal, shift+equal, add', () => zoom(1 / 1.5), SCREEN_KEYS)
  useHotkeys('minus, subtract', () => zoom(1.5), SCREEN_KEYS)
  useHotkeys('pageup', () => pan(-1), SCREEN_KEYS)
  useHotkeys('pagedown', () => pan(1), SCREEN_KEYS)
  useHotkeys('home', () => step(-durationMicros), SCREEN_KEYS)
  useHotkeys('end', () => step(durationMicros), SCREEN_KEYS)
  useHotkeys('mod+z', () => session.undo(), SCREEN_KEYS)
  useHotkeys('mod+shift+z, mod+y', () => session.redo(), SCREEN_KEYS)
  useHotkeys('mod+enter', open.cut, SCREEN_KEYS)
  useHotkeys(
    'escape',
    () => {
      view.setState({ selected: null })
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    },
    { enableOnFormTags: ['slider'] },
  )
  useHotkeys('?', open.keys, { ...SCREEN_KEYS, useKey: true })
}
