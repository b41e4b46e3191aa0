import type { KeyBinding } from './keyBindings'

export type PlayingKey =
  'play' | 'back' | 'pause' | 'forwards' | 'frame-back' | 'frame-on' | 'second-back' | 'second-on'

/** The keys of every screen on which something plays. */
export const PLAYING_KEYS: readonly KeyBinding<PlayingKey>[] = [
  { id: 'play', keys: ['space'], does: 'Play, pause' },
  { id: 'back', keys: ['j'], does: 'Play backwards; again for faster' },
  { id: 'pause', keys: ['k'], does: 'Pause' },
  { id: 'forwards', keys: ['l'], does: 'Play forwards; again for faster' },
  { id: 'frame-back', keys: ['left'], does: 'One frame back' },
  { id: 'frame-on', keys: ['right'], does: 'One frame on' },
  { id: 'second-back', keys: ['shift+left'], does: 'One second back' },
  { id: 'second-on', keys: ['shift+right'], does: 'One second on' },
]

export type EditingKey = 'undo' | 'redo' | 'let-go' | 'keys'

/** The keys of every screen on which something is edited. */
export const EDITING_KEYS: readonly KeyBinding<EditingKey>[] = [
  { id: 'undo', keys: ['mod+z'], does: 'Undo' },
  { id: 'redo', keys: ['mod+shift+z', 'mod+y'], does: 'Redo' },
  { id: 'let-go', keys: ['escape'], does: 'Let go' },
  { id: 'keys', keys: ['?'], does: 'This list' },
]
