import { createContext, useContext } from 'react'
import { useStore } from 'zustand'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { recordingOf, setupOf, layoutOf, type Edit } from '@/core/model/edit'
import type { Layout } from '@/core/model/layout'
import type { PanelId, RegionId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import type { Bench } from './useBench'

export type Pane = 'sheet' | 'frame' | 'shapes'

/** What is picked up on the Bench: a region in the Frame or a panel in the Shapes. Each lights up its other half. */
export type Selection = { kind: 'region'; id: RegionId } | { kind: 'panel'; id: PanelId } | null

/** What is only this tab's: nothing here is saved or undone. */
export interface BenchView {
  pane: Pane
  selection: Selection
  /** Whether outlines, labels and handles are drawn over the pictures. */
  marks: boolean
}

export interface BenchContextValue extends Bench {
  view: StoreApi<BenchView>
}

export const BenchContext = createContext<BenchContextValue | null>(null)

export function newBenchView(): StoreApi<BenchView> {
  return createStore<BenchView>(() => ({ pane: 'frame', selection: null, marks: true }))
}

export function useBenchContext(): BenchContextValue {
  const value = useContext(BenchContext)
  if (!value) throw new Error('outside a Bench')
  return value
}

export function useEdit(): Edit {
  return useStore(useBenchContext().session.store, (s) => s.history.value)
}

export function useView<T>(pick: (view: BenchView) => T): T {
  return useStore(useBenchContext().view, pick)
}

/** The passage at hand with the records it refers to. */
export interface PassageParts {
  passage: Passage
  recording: Recording
  setup: Setup
  layout: Layout
}

export function partsOf(edit: Edit): PassageParts {
  const passage = edit.highlight.passages[0]
  if (!passage) throw new Error('a highlight has at least one passage')
  return { passage, recording: recordingOf(edit, passage.recordingId), setup: setupOf(edit, passage.setupId), layout: layoutOf(edit, passage.layoutId) }
}
