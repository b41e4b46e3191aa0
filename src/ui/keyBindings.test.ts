import { expect, it } from 'vitest'
import { asChanged, isLetter, keyNames, withLetter, type KeyBinding } from './keyBindings'

const BINDINGS: KeyBinding[] = [
  { id: 'split', keys: ['s'], does: 'Split' },
  { id: 'strike', keys: ['x'], does: 'Strike out' },
  { id: 'mark', keys: ['comma'], does: 'Mark' },
  { id: 'sheet', keys: ['1'], does: 'Sheet' },
  { id: 'redo', keys: ['mod+shift+z', 'mod+y'], does: 'Redo' },
  { id: 'zoom', keys: ['equal', 'shift+equal', 'add'], does: 'Magnify' },
]
const USUAL = { letters: true, changed: {} }
const keysOf = (settings = USUAL as Parameters<typeof asChanged>[1]) =>
  Object.fromEntries(asChanged(BINDINGS, settings).map((b) => [b.id, b.keys]))

it('a letter that is given to another binding changes places with it, and going back leaves nothing changed', () => {
  const once = withLetter(BINDINGS, USUAL, 'split', 'x')
  expect(keysOf(once)).toMatchObject({ split: ['x'], strike: ['s'] })
  expect(withLetter(BINDINGS, once, 'split', 's')).toEqual(USUAL)
  expect(keysOf(withLetter(BINDINGS, USUAL, 'strike', 'q'))).toMatchObject({ split: ['s'], strike: ['q'] })
})

it('switched off, keys that stand alone do nothing, and those with a modifier or a name stay', () => {
  expect(keysOf({ ...USUAL, letters: false })).toEqual({
    split: [],
    strike: [],
    mark: [],
    sheet: [],
    redo: ['mod+shift+z', 'mod+y'],
    zoom: ['equal', 'shift+equal', 'add'],
  })
})

it('keys are written as people know them', () => {
  expect(BINDINGS.map(keyNames)).toEqual(['S', 'X', ',', '1', 'Ctrl + Shift + Z, Ctrl + Y', '+, Shift + +'])
  expect(BINDINGS.filter(isLetter).map((b) => b.id)).toEqual(['split', 'strike'])
})
