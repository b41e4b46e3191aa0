import { useHotkeys } from 'react-hotkeys-hook'
import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { SCREEN_KEYS } from '@/ui/screenKeys'
import { trimAt } from '@/edit/passages'
import { partsOf, type BenchContextValue } from './benchContext'
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
  { keys: 'Shift, Alt', does: 'While a region is dragged: straight; in this passage only' },
  {
    keys: 'Shift, Alt, Ctrl',
    does: 'While an edge of a region is dragged: hold the proportion, keep the centre, do not snap to the picture',
  },
  { keys: 'Alt', does: 'While a seam, an inset or the picture in a panel is moved: in this shape only' },
  {
    keys: 'Shift, Ctrl',
    does: 'While an inset is dragged: move the picture inside it, or resize it out of proportion; rest on nothing',
  },
  {
    keys: 'Arrows',
    does: 'Move what is picked up: a cut by a frame, a region by 2 px of the recording, a crop by one px of the output, a seam, an inset or a mark by 2; with Shift ten times as far, a cut by a second',
  },
  {
    keys: 'Alt + arrows',
    does: 'Resize the region, inset or mark that is picked up; move the seam in this shape only; move the passage that is picked up',
  },
  { keys: 'Enter', does: 'Numbers of the passage that is picked up' },
  { keys: 'Enter, Backspace', does: 'In a caption: split it at the caret; at its start, join it to the one before' },
  { keys: 'Ctrl + Space', does: 'In a caption: play, pause' },
  { keys: 'Alt + ↑ ↓', does: 'In a caption: move its start; with Shift its end' },
  { keys: 'Alt + W', does: 'In a caption: choose who speaks' },
  { keys: 'Enter, Delete', does: 'On a title in a shape: write in it there; take it away. Delete takes a mark away' },
  { keys: '+ −', does: 'Zoom the crop of the panel that is picked up' },
  { keys: 'Ctrl + Z', does: 'Undo; with Shift redo' },
  { keys: 'Ctrl + D', does: 'Versions' },
  { keys: 'Ctrl + Enter', does: 'Render' },
  { keys: 'Esc', does: 'Let go' },
  { keys: '?', does: 'This list' },
]

const MAX_RATE = 8

/** The Bench's keys. Whatever has the focus and uses a key itself keeps it from coming here. */
export function useBenchKeys(
  { session, player, view }: BenchContextValue,
  open: { render: () => void; keys: () => void; versions: () => void },
): void {
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
    const next =
      by > 0
        ? passages.find((p) => p.startMicros > t)
        : passages.findLast(
            (p) => p.startMicros < t - (player.getState().kind === 'playing' ? MICROS_PER_SECOND / 2 : 0),
          )
    if (next) player.seek(next.startMicros)
  }
  const mark = (end: 'fromMicros' | 'toMicros') => {
    const t: Micros = player.positionMicros
    const known = view.getState().stretch ?? { fromMicros: 0, toMicros: map().lengthMicros }
    const stretch = { ...known, [end]: t }
    if (stretch.toMicros > stretch.fromMicros) view.setState({ stretch })
    else
      view.setState({
        stretch:
          end === 'fromMicros' ? { fromMicros: t, toMicros: map().lengthMicros } : { fromMicros: 0, toMicros: t },
      })
  }
  const shuttle = (direction: 1 | -1) => {
    const { kind, rate } = player.getState()
    const faster = kind === 'playing' && Math.sign(rate) === direction ? Math.min(MAX_RATE, Math.abs(rate) * 2) : 1
    void player.play(direction * faster)
  }
  useHotkeys('space', () => player.toggle(), SCREEN_KEYS)
  useHotkeys('j', () => shuttle(-1), SCREEN_KEYS)
  useHotkeys('k', () => player.pause(), SCREEN_KEYS)
  useHotkeys('l', () => shuttle(1), SCREEN_KEYS)
  useHotkeys('left', () => step(-frame()), SCREEN_KEYS)
  useHotkeys('right', () => step(frame()), SCREEN_KEYS)
  useHotkeys('shift+left', () => step(-MICROS_PER_SECOND), SCREEN_KEYS)
  useHotkeys('shift+right', () => step(MICROS_PER_SECOND), SCREEN_KEYS)
  useHotkeys('i', () => player.seek(trimAt(session, 'in', player.positionMicros)), SCREEN_KEYS)
  useHotkeys('o', () => player.seek(trimAt(session, 'out', player.positionMicros)), SCREEN_KEYS)
  useHotkeys('s', split, SCREEN_KEYS)
  useHotkeys('comma', () => mark('fromMicros'), SCREEN_KEYS)
  useHotkeys('period', () => mark('toMicros'), SCREEN_KEYS)
  useHotkeys('x', strike, SCREEN_KEYS)
  useHotkeys('home', () => player.seek(0), SCREEN_KEYS)
  useHotkeys('end', () => player.seek(map().lengthMicros - frame()), SCREEN_KEYS)
  useHotkeys('pageup', () => toPassage(-1), SCREEN_KEYS)
  useHotkeys('pagedown', () => toPassage(1), SCREEN_KEYS)
  useHotkeys('1', () => view.setState({ pane: 'sheet' }), SCREEN_KEYS)
  useHotkeys('2', () => view.setState({ pane: 'frame' }), SCREEN_KEYS)
  useHotkeys('3', () => view.setState({ pane: 'shapes' }), SCREEN_KEYS)
  useHotkeys('h', () => view.setState((v) => ({ marks: !v.marks })), SCREEN_KEYS)
  useHotkeys('mod+z', () => session.undo(), SCREEN_KEYS)
  useHotkeys('mod+shift+z, mod+y', () => session.redo(), SCREEN_KEYS)
  useHotkeys('mod+enter', open.render, SCREEN_KEYS)
  useHotkeys('mod+d', open.versions, SCREEN_KEYS)
  useHotkeys(
    'escape',
    () => {
      view.setState({ selection: null, stretch: null, alone: null })
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    },
    { enableOnFormTags: ['slider'] },
  )
  useHotkeys('?', open.keys, { ...SCREEN_KEYS, useKey: true })
}
