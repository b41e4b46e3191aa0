'use client'

import Button from '@mui/material/Button'
import { useLiveQuery } from 'dexie-react-hooks'
import { create } from 'zustand'
import { binItems } from '@/store/bin'
import { BinDialog } from './BinDialog'
import { wording } from './wording'

/** Whether the bin is open: messages on any screen lead to it. */
const useBinOpen = create<{ isOpen: boolean }>(() => ({ isOpen: false }))

export const openBin = () => useBinOpen.setState({ isOpen: true })

/** Opens the bin; there is none to see while it is empty. */
export function BinButton() {
  const count = useLiveQuery(async () => (await binItems()).length, []) ?? 0
  return count > 0 ? <Button onClick={openBin}>{wording.binOfCount(count)}</Button> : null
}

/** The bin itself, wherever it was opened. */
export function Bin() {
  const isOpen = useBinOpen((s) => s.isOpen)
  return isOpen ? <BinDialog onClose={() => useBinOpen.setState({ isOpen: false })} /> : null
}
