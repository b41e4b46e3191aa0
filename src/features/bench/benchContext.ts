import { createContext, useContext, useMemo } from 'react'
import { useStore } from 'zustand'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { Point } from '@/core/geometry/rect'
import { layoutOf, recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Layout } from '@/core/model/layout'
import type { PanelId, PassageId, RegionId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import type { Bench } from './useBench'

export type Pane = 'sheet' | 'frame' | 'shapes'

/** What is picked up on the Bench: a region in the Frame or a panel in the Shapes. Each lights up its other half. */
export type Selection = { kind: 'region'; id: RegionId } | { kind: 'panel'; id: PanelId } | null

/** What is only this tab's: nothing here is saved or undone. */
export interface BenchView {
  pane: Pane
  selection: Selection
  /** The region that is being dragged: the rest of the frame is dimmed meanwhile. */
  moving: RegionId | null
  /** The region whose crops are to follow what is in it, as soon as that is known. */
  wantsFollow: RegionId | null
  /** The point of the frame (px) that is looked at through the magnifier. */
  magnified: Point | null
  /** Whether outlines, labels and handles are drawn over the pictures. */
  marks: boolean
  /** The passage that is worked on: the one at the playhead, or the one whose edge is being trimmed. */
  passageId: PassageId | null
  /** A stretch of the output that is marked, to be struck out or played over and over; end-exclusive. */
  stretch: { fromMicros: Micros; toMicros: Micros } | null
}

export interface BenchContextValue extends Bench {
  view: StoreApi<BenchView>
}

export const BenchContext = createContext<BenchContextValue | null>(null)

export function newBenchView(): StoreApi<BenchView> {
  return createStore<BenchView>(() => ({ pane: 'frame', selection: null, moving: null, wantsFollow: null, magnified: null, marks: true, passageId: null, stretch: null }))
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

/** A passage with the records it refers to. */
export interface PassageParts {
  passage: Passage
  recording: Recording
  setup: Setup
  layout: Layout
}

/** The passage with this id and what it refers to; the first one when there is none of that id. */
export function partsOf(edit: Edit, id: PassageId | null): PassageParts {
  const { passages } = edit.highlight
  const passage = passages.find((p) => p.id === id) ?? passages[0]
  if (!passage) throw new Error('a highlight has at least one passage')
  return { passage, recording: recordingOf(edit, passage.recordingId), setup: setupOf(edit, passage.setupId), layout: layoutOf(edit, passage.layoutId) }
}

/** The parts of the passage that is worked on. */
export function useParts(): PassageParts {
  return partsOf(useEdit(), useView((v) => v.passageId))
}

/** Where the highlight's passages and joins lie on the output clock. */
export function useTimeMap(): TimeMap {
  const { passages, joinTiming } = useEdit().highlight
  return useMemo(() => timeMapOf({ passages, joinTiming }), [passages, joinTiming])
}
