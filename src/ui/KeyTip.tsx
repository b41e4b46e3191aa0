'use client'

import Tooltip from '@mui/material/Tooltip'
import { useLiveQuery } from 'dexie-react-hooks'
import type { ReactElement } from 'react'
import { readKeySettings, USUAL_KEYS } from '@/store/keySettings'
import { asChanged, keyNames, type KeyBinding } from './keyBindings'

interface BoundKey<Id extends string> {
  /** Whose keys they are, as in the settings. */
  screen: string
  bindings: readonly KeyBinding<Id>[]
  id: Id
}

/** How the key of a binding is written, as the person has it; empty where there is none, or it is switched off. */
export function useKeyName<Id extends string>({ screen, bindings, id }: BoundKey<Id>): string {
  const { letters, changed } = useLiveQuery(readKeySettings) ?? USUAL_KEYS
  const binding = bindings.find((b) => b.id === id)
  if (!binding) return ''
  const [own] = asChanged([binding], { letters, changed: changed[screen] ?? {} })
  return own ? keyNames(own) : ''
}

/**
 * A tooltip that also tells the key. What it is on keeps its own name, and what it lies over can be pressed: whoever is
 * on the way to there is not in its way.
 */
export function KeyTip<Id extends string>({
  title,
  children,
  ...key
}: BoundKey<Id> & { title: string; children: ReactElement }) {
  const name = useKeyName(key)
  return (
    <Tooltip describeChild disableInteractive title={name === '' ? title : `${title} (${name})`}>
      {children}
    </Tooltip>
  )
}
