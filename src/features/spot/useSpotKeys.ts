import { useHotkeys, type Options } from 'react-hotkeys-hook'
import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { adjust, drop, keep, markAt } from './marking'
import { bringIntoSight, panStretch, zoomStretch, type SpotContextValue } from './spotContext'
import type { Found } from './useMoments'

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

const MOST_RATE = 8

/** The edges of a moment are sliders to assistive technology; the library would leave all keys to them. */
const OPTIONS: Options = { preventDefault: true, enableOnFormTags: ['slider'] }

export function useSpotKeys({ recording, session, player, view }: SpotContextValue, found: Found, open: { cut: () => void; keys: () => void }): void {
  const { durationMicros } = recording
  const selected = () => found.moments.find((m) => m.id === view.getState().selected) ?? null
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
    const faster = kind === 'playing' && Math.sign(rate) === direction ? Math.min(MOST_RATE, Math.abs(rate) * 2) : 1
    void player.play(direction * faster)
  }
  const toMoment = (by: 1 | -1) => {
    const all = found.moments.filter((m) => m.state !== 'dropped')
    const at = all.findIndex((m) => m.id === view.getState().selected)
    const here = player.positionMicros
    const next = at >= 0 ? all[(at + by + all.length) % all.length] : by > 0 ? (all.find((m) => m.inMicros >= here) ?? all[0]) : (all.findLast((m) => m.inMicros < here) ?? all.at(-1))
    if (!next) return
    view.setState({ selected: next.id })
    bringIntoSight(view, durationMicros, next.inMicros, next.outMicros)
    player.seek(next.inMicros)
    void player.play()
  }
  const onSelected = (act: (moment: NonNullable<ReturnType<typeof selected>>) => void) => () => {
    const moment = selected()
    if (moment) act(moment)
  }
  const zoom = (factor: number) => zoomStretch(view, durationMicros, factor, player.positionMicros)
  const pan = (by: number) => {
    const { fromMicros, toMicros } = view.getState()
    panStretch(view, durationMicros, by * (toMicros - fromMicros) * 0.8)
  }
  useHotkeys('space', () => player.toggle(), OPTIONS)
  useHotkeys('j', () => shuttle(-1), OPTIONS)
  useHotkeys('k', () => player.pause(), OPTIONS)
  useHotkeys('l', () => shuttle(1), OPTIONS)
  useHotkeys('left', () => step(-oneFrame(recording)), OPTIONS)
  useHotkeys('right', () => step(oneFrame(recording)), OPTIONS)
  useHotkeys('shift+left', () => step(-MICROS_PER_SECOND), OPTIONS)
  useHotkeys('shift+right', () => step(MICROS_PER_SECOND), OPTIONS)
  useHotkeys('enter', () => toMoment(1), OPTIONS)
  useHotkeys('shift+enter', () => toMoment(-1), OPTIONS)
  useHotkeys('y', onSelected((m) => keep(session, m)), OPTIONS)
  useHotkeys('n', onSelected((m) => drop(session, m)), OPTIONS)
  useHotkeys('i', onSelected((m) => adjust(session, recording, m, 'in', player.positionMicros, crypto.randomUUID())), OPTIONS)
  useHotkeys('o', onSelected((m) => adjust(session, recording, m, 'out', player.positionMicros, crypto.randomUUID())), OPTIONS)
  useHotkeys('m', () => view.setState({ selected: markAt(session, recording, found.analysis, player.positionMicros).id }), OPTIONS)
  useHotkeys('equal, shift+equal, add', () => zoom(1 / 1.5), OPTIONS)
  useHotkeys('minus, subtract', () => zoom(1.5), OPTIONS)
  useHotkeys('pageup', () => pan(-1), OPTIONS)
  useHotkeys('pagedown', () => pan(1), OPTIONS)
  useHotkeys('home', () => step(-durationMicros), OPTIONS)
  useHotkeys('end', () => step(durationMicros), OPTIONS)
  useHotkeys('mod+z', () => session.undo(), OPTIONS)
  useHotkeys('mod+shift+z, mod+y', () => session.redo(), OPTIONS)
  useHotkeys('mod+enter', open.cut, OPTIONS)
  useHotkeys(
    'escape',
    () => {
      view.setState({ selected: null })
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    },
    { enableOnFormTags: ['slider'] },
  )
  useHotkeys('?', open.keys, { ...OPTIONS, useKey: true })
}
