import { createContext, useContext, useMemo } from 'react'
import { useStore } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { createStore, type StoreApi } from 'zustand/vanilla'
import type { Finding } from '@/core/findings/finding'
import type { Point } from '@/core/geometry/rect'
import { layoutOf, recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import type { Layout } from '@/core/model/layout'
import type { MarkId, PanelId, PassageId, RegionId, TitleId } from '@/core/model/ids'
import type { Guides } from '@/core/layout/insets'
import type { Outlet } from '@/core/model/outlet'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import type { Micros } from '@/core/time/micros'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import type { Looked } from './gauges/useFindings'
import type { Bench } from './useBench'

export type Pane = 'sheet' | 'frame' | 'shapes'

/**
 * What is picked up on the Bench: a region in the Frame or a panel in the Shapes, of which each lights up its other
 * half; or something over the picture.
 */
export type Selection =
  | { kind: 'region'; id: RegionId }
  | { kind: 'panel'; id: PanelId }
  | { kind: 'mark'; id: MarkId }
  | { kind: 'title'; id: TitleId }
  | null

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
  /** Whether an arrangement is only being tried: what is drawn is not what is edited. */
  trial: boolean
  /** The outlet whose zones are drawn over the shapes. */
  outlet: Outlet | null
  /** The title that is being written where it stands, in one of the shapes. */
  writing: { titleId: TitleId; shapeId: string } | null
  /** What was found when it was looked over last; null before the first time. */
  looked: Looked | null
  /** Files that could not be read while they were played, by id. */
  unreadable: ReadonlySet<string> | null
  /** The finding whose place is shown. */
  pointedAt: Finding | null
  /** Lines that what is being dragged has come to rest on, px of a shape. */
  guides: (Guides & { shapeId: string }) | null
  /** The shape that is looked at alone, and how. */
  alone: { shapeId: string; as: 'full' | 'phone' } | null
  /** A stretch of the output that is marked, to be struck out or played over and over; end-exclusive. */
  stretch: { fromMicros: Micros; toMicros: Micros } | null
}

export interface BenchContextValue extends Bench {
  view: StoreApi<BenchView>
}

export const BenchContext = createContext<BenchContextValue | null>(null)

export function newBenchView(): StoreApi<BenchView> {
  return createStore<BenchView>(() => ({
    pane: 'frame',
    selection: null,
    moving: null,
    wantsFollow: null,
    magnified: null,
    marks: true,
    passageId: null,
    trial: false,
    outlet: null,
    writing: null,
    looked: null,
    unreadable: null,
    pointedAt: null,
    guides: null,
    alone: null,
    stretch: null,
  }))
}

export function useBenchContext(): BenchContextValue {
  const value = useContext(BenchContext)
  if (!value) throw new Error('outside a Bench')
  return value
}

/**
 * All of the edit: for what is drawn anew with every change. While a region is dragged that is sixty times a second;
 * the hooks below follow less.
 */
export function useEdit(): Edit {
  return useStore(useBenchContext().session.store, (s) => s.history.value)
}

/** The highlight; the same object while only setups or layouts change. */
export function useHighlight(): Highlight {
  return useStore(useBenchContext().session.store, (s) => s.history.value.highlight)
}

/** What is cut from what; the same object while only setups or layouts change. */
export function useFootage(): Pick<Edit, 'highlight' | 'recordings'> {
  return useStore(
    useBenchContext().session.store,
    useShallow(({ history: { value } }) => ({ highlight: value.highlight, recordings: value.recordings })),
  )
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
  return {
    passage,
    recording: recordingOf(edit, passage.recordingId),
    setup: setupOf(edit, passage.setupId),
    layout: layoutOf(edit, passage.layoutId),
  }
}

/** The parts of the passage that is worked on. */
export function useParts(): PassageParts {
  const id = useView((v) => v.passageId)
  return useStore(
    useBenchContext().session.store,
    useShallow(({ history }) => partsOf(history.value, id)),
  )
}

/** The passage that is worked on and what it plays, for those to whom setup and layout do not matter. */
export function usePassage(): Pick<PassageParts, 'passage' | 'recording'> {
  const id = useView((v) => v.passageId)
  return useStore(
    useBenchContext().session.store,
    useShallow(({ history }) => {
      const { passage, recording } = partsOf(history.value, id)
      return { passage, recording }
    }),
  )
}

/** The layout of the passage that is worked on. */
export function useLayout(): Layout {
  const id = useView((v) => v.passageId)
  return useStore(useBenchContext().session.store, ({ history }) => partsOf(history.value, id).layout)
}

/** Where the highlight's passages and joins lie on the output clock. */
export function useTimeMap(): TimeMap {
  const { passages, joinTiming } = useHighlight()
  return useMemo(() => timeMapOf({ passages, joinTiming }), [passages, joinTiming])
}
