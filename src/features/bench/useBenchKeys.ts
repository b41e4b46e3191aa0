import { useHotkeys, type Options } from 'react-hotkeys-hook'
import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { partsOf, type BenchContextValue } from './benchContext'
import { trimAt } from './sheet/cuts'
import { useCutting } from './sheet/useCutting'

/** Every key of the Bench with what it does, as the list behind `?` shows them. */
export const BENCH_KEYS: readonly { keys: string; does: string }[] = [
  { keys: 'Space', does: 'Play, pause' },
  { keys: 'J K L', does: 'Play backwards, pause, play forwards; again for faster' },
  { keys: '← →', does: 'One frame back, on; with Shift one second' },
  { keys: 'Home End', does: 'Go to the start or end of the highlight' },
  { keys: 'PgUp PgDn', does: 'Go to the passage before, after' },
  { keys: 'I O', does: 'Set the passage’s in or out point here' },
  { keys: 'S', does: 'Split the passage here' },
  { keys: ', .', does: 'Mark a stretch: from here, up to here' },
  { keys: 'X', does: 'Strike out the marked stretch' },
  { keys: '1 2 3', does: 'Sheet, Frame, Shapes' },
  { keys: 'H', does: 'Hide or show outlines' },
  { keys: 'Arrows', does: 'Move what is picked up: a cut by a frame, a region by 2 px of the recording, a crop by one px of the output, a seam by 2; with Shift ten times as far, a cut by a second' },
  { keys: 'Alt + arrows', does: 'Resize the region that is picked up; move the passage that is picked up' },
  { keys: 'Enter', does: 'Numbers of the passage that is picked up' },
  { keys: '+ −', does: 'Zoom the crop of the panel that is picked up' },
  { keys: 'Ctrl + Z', does: 'Undo; with Shift redo' },
  { keys: 'Ctrl + D', does: 'Versions' },
  { keys: 'Ctrl + Enter', does: 'Render' },
  { keys: 'Esc', does: 'Let go' },
  { keys: '?', does: 'This list' },
]

const MOST_RATE = 8

/** A cut that is picked up is a slider to assistive technology; the library would leave all keys to it. */
const OPTIONS: Options = { preventDefault: true, enableOnFormTags: ['slider'] }

/** The Bench's keys. Whatever has the focus and uses a key itself keeps it from coming here. */
export function useBenchKeys({ session, player, view }: BenchContextValue, open: { render: () => void; keys: () => void; versions: () => void }): void {
  const { split, strike } = useCutting()
  const parts = () => partsOf(session.value, view.getState().passageId)
  const map = () => timeMapOf(session.value.highlight)
  const step = (by: number) => {
    player.pause()
    player.seek(player.positionMicros + by)
  }
  /** A frame of the recording as long as it is shown. */
  const frame = () => Math.round((oneFrame(parts().recording) * 100) / parts().passage.speedPercent)
  const toPassage = (by: 1 | -1) => {
    const { passages } = map()
    const t = player.positionMicros
    const next = by > 0 ? passages.find((p) => p.startMicros > t) : passages.findLast((p) => p.startMicros < t - (player.getState().kind === 'playing' ? MICROS_PER_SECOND / 2 : 0))
    if (next) player.seek(next.startMicros)
  }
  const mark = (end: 'fromMicros' | 'toMicros') => {
    const t: Micros = player.positionMicros
    const known = view.getState().stretch ?? { fromMicros: 0, toMicros: map().lengthMicros }
    const stretch = { ...known, [end]: t }
    if (stretch.toMicros > stretch.fromMicros) view.setState({ stretch })
    else view.setState({ stretch: end === 'fromMicros' ? { fromMicros: t, toMicros: map().lengthMicros } : { fromMicros: 0, toMicros: t } })
  }
  const shuttle = (direction: 1 | -1) => {
    const { kind, rate } = player.getState()
    const faster = kind === 'playing' && Math.sign(rate) === direction ? Math.min(MOST_RATE, Math.abs(rate) * 2) : 1
    void player.play(direction * faster)
  }
  useHotkeys('space', () => player.toggle(), OPTIONS)
  useHotkeys('j', () => shuttle(-1), OPTIONS)
  useHotkeys('k', () => player.pause(), OPTIONS)
  useHotkeys('l', () => shuttle(1), OPTIONS)
  useHotkeys('left', () => step(-frame()), OPTIONS)
  useHotkeys('right', () => step(frame()), OPTIONS)
  useHotkeys('shift+left', () => step(-MICROS_PER_SECOND), OPTIONS)
  useHotkeys('shift+right', () => step(MICROS_PER_SECOND), OPTIONS)
  useHotkeys('i', () => player.seek(trimAt(session, 'in', player.positionMicros)), OPTIONS)
  useHotkeys('o', () => player.seek(trimAt(session, 'out', player.positionMicros)), OPTIONS)
  useHotkeys('s', split, OPTIONS)
  useHotkeys('comma', () => mark('fromMicros'), OPTIONS)
  useHotkeys('period', () => mark('toMicros'), OPTIONS)
  useHotkeys('x', strike, OPTIONS)
  useHotkeys('home', () => player.seek(0), OPTIONS)
  useHotkeys('end', () => player.seek(map().lengthMicros - frame()), OPTIONS)
  useHotkeys('pageup', () => toPassage(-1), OPTIONS)
  useHotkeys('pagedown', () => toPassage(1), OPTIONS)
  useHotkeys('1', () => view.setState({ pane: 'sheet' }), OPTIONS)
  useHotkeys('2', () => view.setState({ pane: 'frame' }), OPTIONS)
  useHotkeys('3', () => view.setState({ pane: 'shapes' }), OPTIONS)
  useHotkeys('h', () => view.setState((v) => ({ marks: !v.marks })), OPTIONS)
  useHotkeys('mod+z', () => session.undo(), OPTIONS)
  useHotkeys('mod+shift+z, mod+y', () => session.redo(), OPTIONS)
  useHotkeys('mod+enter', open.render, OPTIONS)
  useHotkeys('mod+d', open.versions, OPTIONS)
  useHotkeys('escape', () => {
    view.setState({ selection: null, stretch: null })
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  }, { enableOnFormTags: ['slider'] })
  useHotkeys('?', open.keys, { ...OPTIONS, useKey: true })
}
