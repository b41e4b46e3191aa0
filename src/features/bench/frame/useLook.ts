import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { SnapLines } from '@/core/detect/regions/snap'
import { useCalmParts } from '../benchContext'
import { looks, sceneKey, type LookState, type Scene } from '@/shared/looks/looks'

/** The scene that is worked on. */
export function useScene(): Scene {
  const { recording, setup } = useCalmParts()
  const { id: setupId } = setup
  return useMemo(() => ({ recording, setupId }), [recording, setupId])
}

/** What has been seen of the scene that is worked on. */
export function useLook(): LookState | null {
  const key = sceneKey(useScene())
  return useStore(looks, (all) => all[key] ?? null)
}

/** Edges in its pictures; null until it has been looked at. */
export function useSnapLines(): SnapLines | null {
  const look = useLook()
  return look?.kind === 'seen' ? look.lines : null
}
