import { useStore } from 'zustand'
import type { SnapLines } from '@/core/detect/regions/snap'
import { usePassage } from '../benchContext'
import { looks, type LookState } from '@/shared/looks/looks'

/** What has been seen of the recording that is worked on. */
export function useLook(): LookState | null {
  const { id } = usePassage().recording
  return useStore(looks, (all) => all[id] ?? null)
}

/** Edges in its picture; null until it has been looked at. */
export function useSnapLines(): SnapLines | null {
  const look = useLook()
  return look?.kind === 'seen' ? look.lines : null
}
