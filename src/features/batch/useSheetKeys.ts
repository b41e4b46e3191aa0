import type { KeyBinding } from '@/ui/keyBindings'
import { useScreenKeys } from '@/ui/useScreenKeys'
import { wording } from './wording'

export type SheetKey =
  | 'next'
  | 'previous'
  | 'play'
  | 'keep'
  | 'drop'
  | 'name'
  | 'arrange'
  | 'in-earlier'
  | 'in-later'
  | 'out-earlier'
  | 'out-later'
  | 'choose'
  | 'open'
  | 'undo'
  | 'let-go'
  | 'keys'

/** The keys of the contact sheet; they act on the highlight that is marked. */
export const SHEET_KEYS: readonly KeyBinding<SheetKey>[] = [
  { id: 'next', keys: ['right', 'down'], does: wording.theNextHighlight },
  { id: 'previous', keys: ['left', 'up'], does: wording.theHighlightBefore },
  { id: 'play', keys: ['space'], does: wording.playItHere },
  { id: 'keep', keys: ['y'], does: wording.keepTheDraft },
  { id: 'drop', keys: ['n'], does: wording.putItIntoTheBin },
  { id: 'name', keys: ['t'], does: wording.typeItsTitle },
  { id: 'arrange', keys: ['a'], does: wording.nextBestArrangement },
  { id: 'in-earlier', keys: ['shift+left'], does: wording.startASentenceEarlier },
  { id: 'in-later', keys: ['shift+right'], does: wording.startASentenceLater },
  { id: 'out-earlier', keys: ['alt+left'], does: wording.endASentenceEarlier },
  { id: 'out-later', keys: ['alt+right'], does: wording.endASentenceLater },
  { id: 'choose', keys: ['x'], does: wording.chooseIt },
  { id: 'open', keys: ['enter'], does: wording.openIt },
  { id: 'undo', keys: ['mod+z'], does: wording.undoTheLastDecision },
  { id: 'let-go', keys: ['escape'], does: wording.stopPlaying },
  { id: 'keys', keys: ['?'], does: wording.thisList },
]

export function useSheetKeys(actions: Record<SheetKey, () => void>): void {
  useScreenKeys('sheet', SHEET_KEYS, actions)
}
