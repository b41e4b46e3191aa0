import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { KeyBinding } from '@/ui/keyBindings'
import { EDITING_KEYS, PLAYING_KEYS, type EditingKey, type PlayingKey } from '@/ui/sharedKeys'
import { useScreenKeys } from '@/ui/useScreenKeys'
import { panStretch, zoomStretch, type SpotContextValue } from './spotContext'
import type { SpotActions } from './useSpotActions'
import { wording } from './wording'

export type SpotKey =
  | PlayingKey
  | EditingKey
  | 'next'
  | 'previous'
  | 'keep'
  | 'drop'
  | 'in'
  | 'out'
  | 'mark'
  | 'more'
  | 'less'
  | 'stretch-before'
  | 'stretch-after'
  | 'start'
  | 'end'
  | 'cut'

/** The keys of the Spot screen. */
export const SPOT_KEYS: readonly KeyBinding<SpotKey>[] = [
  ...PLAYING_KEYS,
  { id: 'next', keys: ['enter'], does: wording.nextMomentPlayedFromIts },
  { id: 'previous', keys: ['shift+enter'], does: wording.theMomentBefore },
  { id: 'keep', keys: ['y'], does: wording.keepTheMomentThatIs },
  { id: 'drop', keys: ['n'], does: wording.dropIt },
  { id: 'in', keys: ['i'], does: wording.setItsInPointHere },
  { id: 'out', keys: ['o'], does: wording.setItsOutPointHere },
  { id: 'mark', keys: ['m'], does: wording.markAMomentWhatHappened },
  { id: 'more', keys: ['equal', 'shift+equal', 'add'], does: wording.magnifyMore },
  { id: 'less', keys: ['minus', 'subtract'], does: wording.magnifyLess },
  { id: 'stretch-before', keys: ['pageup'], does: wording.magnifyTheStretchBefore },
  { id: 'stretch-after', keys: ['pagedown'], does: wording.magnifyTheStretchAfter },
  { id: 'start', keys: ['home'], does: wording.goToTheStart },
  { id: 'end', keys: ['end'], does: wording.goToTheEnd },
  { id: 'cut', keys: ['mod+enter'], does: wording.cutTheMomentsThatAre },
  ...EDITING_KEYS,
]

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
  const zoom = (factor: number) => zoomStretch(view, durationMicros, factor, player.positionMicros)
  const pan = (by: number) => {
    const { fromMicros, toMicros } = view.getState()
    panStretch(view, durationMicros, by * (toMicros - fromMicros) * 0.8)
  }
  useScreenKeys('spot', SPOT_KEYS, {
    play: () => player.toggle(),
    back: () => player.shuttle(-1),
    pause: () => player.pause(),
    forwards: () => player.shuttle(1),
    'frame-back': () => step(-oneFrame(recording)),
    'frame-on': () => step(oneFrame(recording)),
    'second-back': () => step(-MICROS_PER_SECOND),
    'second-on': () => step(MICROS_PER_SECOND),
    next: actions.next,
    previous: actions.previous,
    keep: actions.keepSelected,
    drop: actions.dropSelected,
    in: () => actions.setEdge('in'),
    out: () => actions.setEdge('out'),
    mark: actions.mark,
    more: () => zoom(1 / 1.5),
    less: () => zoom(1.5),
    'stretch-before': () => pan(-1),
    'stretch-after': () => pan(1),
    start: () => step(-durationMicros),
    end: () => step(durationMicros),
    undo: () => session.undo(),
    redo: () => session.redo(),
    cut: open.cut,
    'let-go': () => {
      view.setState({ selected: null })
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
    },
    keys: open.keys,
  })
}
