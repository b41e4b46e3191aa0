/** Something that a key does on a screen. */
export interface KeyBinding<Id extends string = string> {
  id: Id
  /** As the hotkeys library writes them. A single letter can be changed and switched off by the person. */
  keys: readonly string[]
  does: string
}

/** What the person has changed about a screen's keys. */
export interface ChangedKeys {
  /** Whether keys that stand alone do anything. */
  letters: boolean
  /** The letters in the place of others, by the binding's id. */
  changed: Record<string, string>
}

/**
 * What modifiers and keys do beside whatever is being dragged or written in: shown with the keys, dealt with where it
 * happens.
 */
export interface KeyNote {
  shown: string
  does: string
}

const NAMES: Record<string, string> = {
  mod: 'Ctrl',
  shift: 'Shift',
  alt: 'Alt',
  left: '←',
  right: '→',
  up: '↑',
  down: '↓',
  comma: ',',
  period: '.',
  equal: '+',
  add: '+',
  minus: '−',
  subtract: '−',
  escape: 'Esc',
  pageup: 'PgUp',
  pagedown: 'PgDn',
  space: 'Space',
  enter: 'Enter',
  home: 'Home',
  end: 'End',
}

/** How a key is written for people: “Ctrl + Z”. */
export function keyName(key: string): string {
  return key
    .split('+')
    .map((part) => NAMES[part] ?? part.toUpperCase())
    .join(' + ')
}

/** How the keys of a binding are written, each once. */
export const keyNames = ({ keys }: Pick<KeyBinding, 'keys'>) => [...new Set(keys.map(keyName))].join(', ')

/** Whether a binding is one letter, which the person can change. */
export const isLetter = ({ keys }: Pick<KeyBinding, 'keys'>) => keys.length === 1 && /^[a-z]$/.test(keys[0] ?? '')

const isBare = (key: string) => key.length === 1 || key === 'comma' || key === 'period'

/** The bindings as the person has them. */
export function asChanged<B extends KeyBinding>(bindings: readonly B[], { letters, changed }: ChangedKeys): B[] {
  return bindings.map((b) => {
    const letter = isLetter(b) ? changed[b.id] : undefined
    const keys = letter ? [letter] : b.keys
    return { ...b, keys: letters ? keys : keys.filter((key) => !isBare(key)) }
  })
}

/** The settings with a letter given to a binding; the one that had it gets the other's. */
export function withLetter(
  bindings: readonly KeyBinding[],
  settings: ChangedKeys,
  id: string,
  letter: string,
): ChangedKeys {
  const now = asChanged(bindings, { ...settings, letters: true })
  const before = now.find((b) => b.id === id)?.keys[0]
  const other = now.find((b) => b.id !== id && b.keys.includes(letter))
  const changed = {
    ...settings.changed,
    [id]: letter,
    ...(other && isLetter(other) && before && { [other.id]: before }),
  }
  for (const { id, keys } of bindings) if (changed[id] === keys[0]) delete changed[id]
  return { ...settings, changed }
}
