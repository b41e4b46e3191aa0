import { useLiveQuery } from 'dexie-react-hooks'
import { useHotkeys } from 'react-hotkeys-hook'
import { readKeySettings, USUAL_KEYS } from '@/store/keySettings'
import { asChanged, type KeyBinding } from './keyBindings'
import { SCREEN_KEYS } from './screenKeys'

/**
 * Listens for the keys of a screen, as the person has them. Whatever has the focus and uses a key itself keeps it
 * from coming here.
 */
export function useScreenKeys<Id extends string>(
  screen: string,
  bindings: readonly KeyBinding<Id>[],
  actions: Record<Id, () => void>,
): void {
  const { letters, changed } = useLiveQuery(readKeySettings) ?? USUAL_KEYS
  const byKey = new Map(
    asChanged(bindings, { letters, changed: changed[screen] ?? {} }).flatMap(({ id, keys }) =>
      keys.map((key) => [key, id] as const),
    ),
  )
  const listen = (key: string) => {
    const id = byKey.get(key)
    if (id) actions[id]()
  }
  // These two are the same on every screen: letting go also works in what can be dragged, and “?” is where the
  // keyboard has it.
  const plain = [...byKey.keys()].filter((key) => key !== 'escape' && key !== '?')
  useHotkeys(plain, (_event, { hotkey }) => listen(hotkey), SCREEN_KEYS)
  useHotkeys('escape', () => listen('escape'), { enableOnFormTags: ['slider'] })
  useHotkeys('?', () => listen('?'), { ...SCREEN_KEYS, useKey: true })
}
