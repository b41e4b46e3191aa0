import { useHotkeys, type Options } from 'react-hotkeys-hook'
import { frameStartMicros } from '@/core/time/frameRate'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { partsOf, type BenchContextValue } from './benchContext'
import { setCutPoint } from './edits'

/** Every key of the Bench with what it does, as the list behind `?` shows them. */
export const BENCH_KEYS: readonly { keys: string; does: string }[] = [
  { keys: 'Space', does: 'Play, pause' },
  { keys: 'J K L', does: 'Play backwards, pause, play forwards; again for faster' },
  { keys: '← →', does: 'One frame back, on; with Shift one second' },
  { keys: 'I O', does: 'Set the in or out point here' },
  { keys: 'Home End', does: 'Go to the in or out point' },
  { keys: '1 2 3', does: 'Sheet, Frame, Shapes' },
  { keys: 'H', does: 'Hide or show outlines' },
  { keys: 'Arrows', does: 'Move what is picked up: a region by 2 px of the recording, a crop by one px of the output, a seam by 2; with Shift ten times as far' },
  { keys: 'Alt + arrows', does: 'Resize the region that is picked up' },
  { keys: '+ −', does: 'Zoom the crop of the panel that is picked up' },
  { keys: 'Ctrl + Z', does: 'Undo; with Shift redo' },
  { keys: 'Ctrl + Enter', does: 'Render' },
  { keys: 'Esc', does: 'Let go' },
  { keys: '?', does: 'This list' },
]

const MOST_RATE = 8

const OPTIONS: Options = { preventDefault: true }

/** The Bench's keys. Whatever has the focus and uses a key itself keeps it from coming here. */
export function useBenchKeys({ session, player, view }: BenchContextValue, open: { render: () => void; keys: () => void }): void {
  const parts = () => partsOf(session.edit)
  const step = (by: number) => {
    player.pause()
    player.seek(player.positionMicros + by)
  }
  const frame = () => frameStartMicros(1, parts().recording.video.frameRate)
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
  useHotkeys('i', () => setCutPoint(session, 'in', player.positionMicros, crypto.randomUUID()), OPTIONS)
  useHotkeys('o', () => setCutPoint(session, 'out', player.positionMicros, crypto.randomUUID()), OPTIONS)
  useHotkeys('home', () => player.seek(parts().passage.inMicros), OPTIONS)
  useHotkeys('end', () => player.seek(parts().passage.outMicros - frame()), OPTIONS)
  useHotkeys('1', () => view.setState({ pane: 'sheet' }), OPTIONS)
  useHotkeys('2', () => view.setState({ pane: 'frame' }), OPTIONS)
  useHotkeys('3', () => view.setState({ pane: 'shapes' }), OPTIONS)
  useHotkeys('h', () => view.setState((v) => ({ marks: !v.marks })), OPTIONS)
  useHotkeys('mod+z', () => session.undo(), OPTIONS)
  useHotkeys('mod+shift+z, mod+y', () => session.redo(), OPTIONS)
  useHotkeys('mod+enter', open.render, OPTIONS)
  useHotkeys('escape', () => {
    view.setState({ selection: null })
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  })
  useHotkeys('?', open.keys, { ...OPTIONS, useKey: true })
}
