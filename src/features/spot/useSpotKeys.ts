import { oneFrame } from '@/core/cut/passages'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { KeyBinding } from '@/ui/keyBindings'
import { useScreenKeys } from '@/ui/useScreenKeys'
import { panStretch, zoomStretch, type SpotContextValue } from './spotContext'
import type { SpotActions } from './useSpotActions'

type SpotKey =
  | 'play'
  | 'back'
  | 'pause'
  | 'forwards'
  | 'frame-back'
  | 'frame-on'
  | 'second-back'
  | 'second-on'
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
  | 'undo'
  | 'redo'
  | 'cut'
  | 'let-go'
  | 'keys'

/** The keys of the Spot screen. */
export const SPOT_KEYS: readonly KeyBinding<SpotKey>[] = [
  { id: 'play', keys: ['space'], does: 'Play, pause' },
  { id: 'back', keys: ['j'], does: 'Play backwards; again for faster' },
  { id: 'pause', keys: ['k'], does: 'Pause' },
  { id: 'forwards', keys: ['l'], does: 'Play forwards; again for faster' },
  { id: 'frame-back', keys: ['left'], does: 'One frame back' },
  { id: 'frame-on', keys: ['right'], does: 'One frame on' },
  { id: 'second-back', keys: ['shift+left'], does: 'One second back' },
  { id: 'second-on', keys: ['shift+right'], does: 'One second on' },
  { id: 'next', keys: ['enter'], does: 'Next moment, played from its start' },
  { id: 'previous', keys: ['shift+enter'], does: 'The moment before' },
  { id: 'keep', keys: ['y'], does: 'Keep the moment that is picked up' },
  { id: 'drop', keys: ['n'], does: 'Drop it' },
  { id: 'in', keys: ['i'], does: 'Set its in point here' },
  { id: 'out', keys: ['o'], does: 'Set its out point here' },
  { id: 'mark', keys: ['m'], does: 'Mark a moment: what happened a little before now' },
  { id: 'more', keys: ['equal', 'shift+equal', 'add'], does: 'Magnify more' },
  { id: 'less', keys: ['minus', 'subtract'], does: 'Magnify less' },
  { id: 'stretch-before', keys: ['pageup'], does: 'Magnify the stretch before' },
  { id: 'stretch-after', keys: ['pagedown'], does: 'Magnify the stretch after' },
  { id: 'start', keys: ['home'], does: 'Go to the start' },
  { id: 'end', keys: ['end'], does: 'Go to the end' },
  { id: 'undo', keys: ['mod+z'], does: 'Undo' },
  { id: 'redo', keys: ['mod+shift+z', 'mod+y'], does: 'Redo' },
  { id: 'cut', keys: ['mod+enter'], does: 'Cut the moments that are kept into highlights' },
  { id: 'let-go', keys: ['escape'], does: 'Let go' },
  { id: 'keys', keys: ['?'], does: 'This list' },
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
  useScreenKeys('spot', SPOT_KEYS, {
    play: () => player.toggle(),
    back: () => shuttle(-1),
    pause: () => player.pause(),
    forwards: () => shuttle(1),
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
