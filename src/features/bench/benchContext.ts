import { createContext, useContext, useMemo, useSyncExternalStore } from 'react'
import { useStore } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { layoutOf, recordingOf, setupOf, type Edit } from '@/core/model/edit'
import type { Highlight } from '@/core/model/highlight'
import type { Layout } from '@/core/model/layout'
import type { MarkId, PanelId, PassageId, RegionId, TitleId } from '@/core/model/ids'
import type { Passage } from '@/core/model/passage'
import type { Recording } from '@/core/model/recording'
import type { Setup } from '@/core/model/setup'
import { timeMapOf, type TimeMap } from '@/core/time/timeMap'
import { NEW_FRAME_VIEW, type FrameView } from './frame/frameView'
import { NEW_GAUGES_VIEW, type GaugesView } from './gauges/gaugesView'
import { NEW_SHAPES_VIEW, type ShapesView } from './shapes/shapesView'
import { NEW_SHEET_VIEW, type SheetView } from './sheet/sheetView'
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

/** What is only this tab's: nothing here is saved or undone. Each pane says what it keeps of it. */
export interface BenchView extends SheetView, FrameView, ShapesView, GaugesView {
  pane: Pane
  selection: Selection
  /** Whether outlines, labels and handles are drawn over the pictures. */
  outlines: boolean
}

export interface BenchContextValue extends Bench {
  view: StoreApi<BenchView>
}

export const BenchContext = createContext<BenchContextValue | null>(null)

export function newBenchView(): StoreApi<BenchView> {
  return createStore<BenchView>(() => ({
    pane: 'frame',
    selection: null,
    outlines: true,
    ...NEW_SHEET_VIEW,
    ...NEW_FRAME_VIEW,
    ...NEW_SHAPES_VIEW,
    ...NEW_GAUGES_VIEW,
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

/** The edit as what only tells of it follows it: a few times a second while something is dragged. */
export function useCalmEdit(): Edit {
  return useStore(useBenchContext().calm.store, (s) => s.edit)
}

/** The edit as it is for what lies in the pane at work, since that may be dragged; elsewhere as it follows calmly. */
export function useEditIn(pane: Pane): Edit {
  const isAtWork = useView((v) => v.pane === pane)
  const { session, calm } = useBenchContext()
  return useSyncExternalStore(
    isAtWork ? session.store.subscribe : calm.store.subscribe,
    () => (isAtWork ? session.value : calm.store.getState().edit),
    () => session.value,
  )
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

/** The same as what only tells of them follows them: a few times a second while something is dragged. */
export function useCalmParts(): PassageParts {
  const id = useView((v) => v.passageId)
  return useStore(
    useBenchContext().calm.store,
    useShallow(({ edit }) => partsOf(edit, id)),
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
