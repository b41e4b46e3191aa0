import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND, type Micros } from '@/core/time/micros'
import { timeMapOf } from '@/core/time/timeMap'
import { HELD_KEYS } from '@/ui/heldKeys'
import type { KeyBinding, KeyNote } from '@/ui/keyBindings'
import { EDITING_KEYS, PLAYING_KEYS, type EditingKey, type PlayingKey } from '@/ui/sharedKeys'
import { useScreenKeys } from '@/ui/useScreenKeys'
import { trimAt } from '@/edit/passages'
import { partsOf, type BenchContextValue } from './benchContext'
import { useCutting } from './sheet/useCutting'
import { wording } from './wording'

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
  { id: 'start', keys: ['home'], does: wording.goToTheStartOf },
  { id: 'end', keys: ['end'], does: wording.goToItsEnd },
  { id: 'passage-before', keys: ['pageup'], does: wording.goToThePassageBefore },
  { id: 'passage-after', keys: ['pagedown'], does: wording.goToThePassageAfter },
  { id: 'in', keys: ['i'], does: wording.setThePassagesInPoint },
  { id: 'out', keys: ['o'], does: wording.setItsOutPointHere },
  { id: 'split', keys: ['s'], does: wording.splitThePassageHere },
  { id: 'mark-from', keys: ['comma'], does: wording.markAStretchFromHere },
  { id: 'mark-to', keys: ['period'], does: wording.markAStretchUpTo },
  { id: 'strike', keys: ['x'], does: wording.strikeOutTheMarkedStretch },
  { id: 'sheet', keys: ['1'], does: wording.sheet },
  { id: 'frame', keys: ['2'], does: wording.frame },
  { id: 'shapes', keys: ['3'], does: wording.shapes },
  { id: 'outlines', keys: ['h'], does: wording.hideOrShowOutlines },
  { id: 'versions', keys: ['mod+d'], does: wording.versions },
  { id: 'render', keys: ['mod+enter'], does: wording.render },
  ...EDITING_KEYS,
]

/** What keys and modifiers do where something is dragged or written. */
export const BENCH_KEY_NOTES: readonly KeyNote[] = [
  { shown: wording.shiftAlt, does: wording.whileARegionIsDragged },
  {
    shown: wording.shiftAltCtrl,
    does: wording.whileAnEdgeOfA,
  },
  { shown: 'Alt', does: wording.whileASeamAnInset },
  {
    shown: wording.shiftCtrl,
    does: wording.whileAnInsetIsDragged,
  },
  {
    shown: HELD_KEYS.arrow,
    does: wording.moveWhatIsPickedUp,
  },
  {
    shown: `Alt + ${HELD_KEYS.arrow.toLowerCase()}`,
    does: wording.resizeTheRegionInsetOr,
  },
  { shown: HELD_KEYS.open, does: wording.numbersOfThePassageThat },
  { shown: wording.enterBackspace, does: wording.inACaptionSplitIt },
  { shown: wording.ctrlSpace, does: wording.inACaptionPlayPause },
  { shown: wording.alt, does: wording.inACaptionMoveIts },
  { shown: wording.altW, does: wording.inACaptionChooseWho },
  { shown: `${HELD_KEYS.open}, ${HELD_KEYS.remove}`, does: wording.onATitleInA },
  { shown: HELD_KEYS.zoom, does: wording.zoomTheCropOfThe },
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
