import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import type { KeyBinding, KeyNote } from '@/ui/keyBindings'
import { EDITING_KEYS, PLAYING_KEYS, type EditingKey, type PlayingKey } from '@/ui/sharedKeys'
import { useScreenKeys } from '@/ui/useScreenKeys'
import { trimAt } from '@/edit/passages'
import { partsOf, type BenchContextValue } from './benchContext'
import { useCutting } from './sheet/useCutting'

type BenchKey =
  | PlayingKey
  | EditingKey
  | 'start'
  | 'end'
  | 'passage-before'
  | 'passage-after'
  | 'in'
  | 'out'
  | 'split'
  | 'mark-from'
  | 'mark-to'
  | 'strike'
  | 'sheet'
  | 'frame'
  | 'shapes'
  | 'outlines'
  | 'versions'
  | 'render'

/** The Bench's keys. */
export const BENCH_KEYS: readonly KeyBinding<BenchKey>[] = [
  ...PLAYING_KEYS,
  { id: 'start', keys: ['home'], does: 'Go to the start of the highlight' },
  { id: 'end', keys: ['end'], does: 'Go to its end' },
  { id: 'passage-before', keys: ['pageup'], does: 'Go to the passage before' },
  { id: 'passage-after', keys: ['pagedown'], does: 'Go to the passage after' },
  { id: 'in', keys: ['i'], does: 'Set the passage’s in point here' },
  { id: 'out', keys: ['o'], does: 'Set its out point here' },
  { id: 'split', keys: ['s'], does: 'Split the passage here' },
  { id: 'mark-from', keys: ['comma'], does: 'Mark a stretch from here' },
  { id: 'mark-to', keys: ['period'], does: 'Mark a stretch up to here' },
  { id: 'strike', keys: ['x'], does: 'Strike out the marked stretch' },
  { id: 'sheet', keys: ['1'], does: 'Sheet' },
  { id: 'frame', keys: ['2'], does: 'Frame' },
  { id: 'shapes', keys: ['3'], does: 'Shapes' },
  { id: 'outlines', keys: ['h'], does: 'Hide or show outlines' },
  { id: 'versions', keys: ['mod+d'], does: 'Versions' },
  { id: 'render', keys: ['mod+enter'], does: 'Render' },
  ...EDITING_KEYS,
]

/** What keys and modifiers do where something is dragged or written. */
export const BENCH_KEY_NOTES: readonly KeyNote[] = [
  { shown: 'Shift, Alt', does: 'While a region is dragged: straight; in this passage only' },
  {
    shown: 'Shift, Alt, Ctrl',
    does: 'While an edge of a region is dragged: hold the proportion, keep the centre, do not snap to the picture',
  },
  { shown: 'Alt', does: 'While a seam, an inset or the picture in a panel is moved: in this shape only' },
  {
    shown: 'Shift, Ctrl',
    does: 'While an inset is dragged: move the picture inside it, or resize it out of proportion; rest on nothing',
  },
  {
    shown: 'Arrows',
    does: 'Move what is picked up: a cut by a frame, a region by 2 px of the recording, a crop by one px of the output, a seam, an inset or a mark by 2; with Shift ten times as far, a cut by a second',
  },
  {
    shown: 'Alt + arrows',
    does: 'Resize the region, inset or mark that is picked up; move the seam in this shape only; move the passage that is picked up',
  },
  { shown: 'Enter', does: 'Numbers of the passage that is picked up' },
  { shown: 'Enter, Backspace', does: 'In a caption: split it at the caret; at its start, join it to the one before' },
  { shown: 'Ctrl + Space', does: 'In a caption: play, pause' },
  { shown: 'Alt + ↑ ↓', does: 'In a caption: move its start; with Shift its end' },
  { shown: 'Alt + W', does: 'In a caption: choose who speaks' },
  { shown: 'Enter, Delete', does: 'On a title in a shape: write in it there; take it away. Delete takes a mark away' },
  { shown: '+ −', does: 'Zoom the crop of the panel that is picked up' },
]

/** Does on the Bench what its keys say. */
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
  useScreenKeys('bench', BENCH_KEYS, {
    play: () => player.toggle(),
    back: () => player.shuttle(-1),
    pause: () => player.pause(),
    forwards: () => player.shuttle(1),
    'frame-back': () => step(-frame()),
    'frame-on': () => step(frame()),
    'second-back': () => step(-MICROS_PER_SECOND),
    'second-on': () => step(MICROS_PER_SECOND),
    start: () => player.seek(0),
    end: () => player.seek(map().lengthMicros - frame()),
    'passage-before': () => toPassage(-1),
    'passage-after': () => toPassage(1),
    in: () => player.seek(trimAt(session, 'in', player.positionMicros)),
    out: () => player.seek(trimAt(session, 'out', player.positionMicros)),
    split,
    'mark-from': () => mark('fromMicros'),
    'mark-to': () => mark('toMicros'),
    strike,
    sheet: () => view.setState({ pane: 'sheet' }),
    frame: () => view.setState({ pane: 'frame' }),
    shapes: () => view.setState({ pane: 'shapes' }),
    outlines: () => view.setState((v) => ({ outlines: !v.outlines })),
    undo: () => session.undo(),
    redo: () => session.redo(),
    versions: open.versions,
    render: open.render,
    'let-go': () => {
      view.setState({ selection: null, stretch: null, alone: null })
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    },
    keys: open.keys,
  })
}
