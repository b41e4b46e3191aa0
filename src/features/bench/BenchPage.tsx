'use client'

import KeyboardIcon from '@mui/icons-material/KeyboardOutlined'
import RedoIcon from '@mui/icons-material/Redo'
import UndoIcon from '@mui/icons-material/Undo'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import dynamic from 'next/dynamic'
import { useSnackbar } from 'notistack'
import { useEffect, useMemo, useRef, useState, type FocusEvent, type KeyboardEvent } from 'react'
import { useStore } from 'zustand'
import { passageAt, timeMapOf } from '@/core/time/timeMap'
import { kept } from '@/store/rack'
import { KeysDialog } from '@/ui/KeysDialog'
import { KeyTip } from '@/ui/KeyTip'
import { CannotOpen, Opening } from '@/ui/Opening'
import { HiddenHeading } from '@/ui/ScreenHeading'
import { TopBar } from '@/ui/TopBar'
import { useTabTitle } from '@/ui/useTabTitle'
import { useGrowing } from '@/ui/useGrowing'
import { SourceMissing } from '@/shared/recordings/SourceMissing'
import { useKeepSaved } from '@/shared/useKeepSaved'
import { useRefusals } from '@/shared/useRefusals'
import {
  BenchContext,
  newBenchView,
  useBenchContext,
  useEdit,
  useHighlight,
  useView,
  type BenchContextValue,
  type Pane,
} from './benchContext'
import { FramePane } from './frame/FramePane'
import { TransportBar } from './gauges/TransportBar'
import { NameField } from './NameField'
import { HandOnMenu } from './handOn/HandOnMenu'
import { RenderDialog } from './render/RenderDialog'
import { RenderStatus } from './render/RenderStatus'
import { SaveBar } from './SaveBar'
import { ShapesPane } from './shapes/ShapesPane'
import { SheetPane } from './sheet/SheetPane'
import { useBench, type Bench } from './useBench'
import { useFindings } from './gauges/useFindings'
import { useHeard } from './useHeard'
import { BENCH_KEY_NOTES, BENCH_KEYS, useBenchKeys } from './useBenchKeys'
import { VersionsDialog } from './VersionsDialog'
import { iconSize } from '@/ui/theme'
import { wording } from './wording'

const CompareDialog = dynamic(() => import('./compare/CompareDialog').then((m) => m.CompareDialog), { ssr: false })

/** Where one highlight is worked on: when, where, and what you get, side by side. */
export function BenchPage({ id }: { id: string }) {
  const { state, reopen } = useBench(id)
  switch (state.kind) {
    case 'loading':
      return <Opening what={wording.highlight} />
    case 'ready':
      return <ReadyBench bench={state.bench} onReopen={reopen} />
    case 'source-missing':
      return (
        <>
          <TopBar />
          <SourceMissing recording={state.recording} needsPermission={state.needsPermission} onFound={reopen} />
        </>
      )
    case 'not-found':
      return <CannotOpen message={wording.thereIsNoSuchHighlight} />
    case 'unreadable-record':
      return <CannotOpen message={state.newer ? wording.thisHighlightWasMadeBy : wording.theStoredHighlightIsDamaged} />
    case 'preview-broken':
      return <CannotOpen message={wording.thePreviewCouldNotBe} />
    case 'source-unreadable':
      return <CannotOpen message={wording.canNoLongerBeReadCheck(state.fileName)} />
  }
}

function ReadyBench({ bench, onReopen }: { bench: Bench; onReopen: () => void }) {
  const [view] = useState(newBenchView)
  const value = useMemo<BenchContextValue>(() => ({ ...bench, view }), [bench, view])
  useEffect(() => keepInStep(value), [value])
  useEffect(() => {
    const asked = new URLSearchParams(window.location.search).get('outlet')
    if (asked !== null)
      void kept('outlet').then((outlets) => view.setState({ outlet: outlets.find((o) => o.id === asked) ?? null }))
  }, [view])
  return (
    <BenchContext value={value}>
      <HearSpeech />
      <LookOver />
      <BenchScreen onReopen={onReopen} />
    </BenchContext>
  )
}

/** Lets the player know where speech is, for music to go down under. */
function HearSpeech() {
  const { player, files } = useBenchContext()
  const heard = useHeard(useEdit(), files)
  useEffect(() => player.setSpeech(heard), [player, heard])
  return null
}

/** Keeps what is found up to date: the gauges, the Sheet and the Shapes show it. */
function LookOver() {
  const { view } = useBenchContext()
  const looked = useFindings()
  useEffect(() => view.setState({ looked }), [view, looked])
  return null
}

/** What is edited is played, what is marked is looped, and the passage at the playhead is the one worked on. */
function keepInStep({ session, player, view }: BenchContextValue): () => void {
  const follow = () => {
    const placed = passageAt(
      timeMapOf(session.value.highlight),
      Math.min(player.positionMicros, player.lengthMicros - 1),
    )
    if (placed && placed.passage.id !== view.getState().passageId) view.setState({ passageId: placed.passage.id })
  }
  const stops = [
    session.store.subscribe(({ history }, before) => history !== before.history && player.setEdit(history.value)),
    view.subscribe(({ stretch }, before) => stretch !== before.stretch && player.setRange(stretch)),
    player.onPosition(follow),
  ]
  return () => stops.forEach((stop) => stop())
}

/** Widths of the three panes, by which one is at work. */
const COLUMNS: Record<Pane, string> = {
  sheet: 'minmax(0, 36fr) minmax(0, 36fr) minmax(0, 28fr)',
  frame: 'minmax(0, 25fr) minmax(0, 45fr) minmax(0, 30fr)',
  shapes: 'minmax(0, 22fr) minmax(0, 34fr) minmax(0, 44fr)',
}

function BenchScreen({ onReopen }: { onReopen: () => void }) {
  const context = useBenchContext()
  const { session } = context
  const { enqueueSnackbar } = useSnackbar()
  const [dialog, setDialog] = useState<'render' | 'keys' | 'versions' | 'compare' | null>(null)
  const pane = useView((v) => v.pane)
  const widen = usePaneAtWork()
  // One after the other, the result first: a big highlight's panes would hold the page up if they came together.
  const panes = useGrowing(3, 1)
  const close = () => setDialog(null)
  useRefusals(session)
  useKeepSaved(session)
  useTabTitle(useHighlight().name, wording.bench)
  useBenchKeys(context, {
    render: () => setDialog('render'),
    keys: () => setDialog('keys'),
    versions: () => setDialog('versions'),
  })
  const onQueued = (files: number) => {
    close()
    enqueueSnackbar(wording.renderingYouCanGoOn(files))
  }
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100dvh' }}>
      <TopBar
        title={
          <>
            <HiddenHeading name={wording.bench} />
            <NameField />
          </>
        }
      >
        <RenderStatus highlightId={session.value.highlight.id} />
        <Button onClick={() => setDialog('compare')}>{wording.compare}</Button>
        <KeyTip screen="bench" bindings={BENCH_KEYS} id="versions" title={wording.whatWasKeptOfIt}>
          <Button onClick={() => setDialog('versions')}>{wording.versions}</Button>
        </KeyTip>
        <HandOnMenu />
        <UndoButtons />
        <KeyTip screen="bench" bindings={BENCH_KEYS} id="keys" title={wording.keys}>
          <IconButton aria-label={wording.keys} onClick={() => setDialog('keys')}>
            <KeyboardIcon sx={{ fontSize: iconSize.large }} />
          </IconButton>
        </KeyTip>
        <KeyTip screen="bench" bindings={BENCH_KEYS} id="render" title={wording.makeTheFiles}>
          <Button variant="contained" color="primary" onClick={() => setDialog('render')}>
            {wording.render}
          </Button>
        </KeyTip>
      </TopBar>
      <SaveBar onReopen={onReopen} />
      <Box
        component="main"
        {...widen}
        sx={{
          flex: 1,
          minHeight: 0,
          display: 'grid',
          gridTemplateColumns: COLUMNS[pane],
          transition: 'grid-template-columns 150ms ease-out',
        }}
      >
        {panes > 2 ? <SheetPane /> : <Box />}
        {panes > 1 ? <FramePane /> : <Box />}
        <ShapesPane />
      </Box>
      <TransportBar />
      {dialog === 'render' && <RenderDialog open onClose={close} onQueued={onQueued} />}
      {dialog === 'compare' && <CompareDialog onClose={close} />}
      {dialog === 'versions' && <VersionsDialog onClose={close} />}
      {dialog === 'keys' && <KeysDialog screen="bench" bindings={BENCH_KEYS} notes={BENCH_KEY_NOTES} onClose={close} />}
    </Box>
  )
}

/**
 * The pane into which Tab moves the focus is the wide one. A pointer changes no widths, whatever it presses and
 * wherever the focus goes with it: what it is about to take hold of stays where it is. Headings and digits make a
 * pane the wide one.
 */
function usePaneAtWork() {
  const { view } = useBenchContext()
  const byTab = useRef(false)
  return {
    onKeyDownCapture: ({ key }: KeyboardEvent) => void (byTab.current = key === 'Tab'),
    onPointerDownCapture: () => void (byTab.current = false),
    onPointerMoveCapture: () => void (byTab.current = false),
    onFocusCapture: ({ target }: FocusEvent) => {
      const pane = byTab.current ? paneOf(target) : null
      if (pane) view.setState({ pane })
    },
  }
}

function paneOf(element: EventTarget | null): Pane | null {
  if (!(element instanceof Element)) return null
  const name = element.closest('section')?.getAttribute('aria-label')?.toLowerCase()
  return name === 'sheet' || name === 'frame' || name === 'shapes' ? name : null
}

function UndoButtons() {
  const { session } = useBenchContext()
  const { steps, position } = useStore(session.store, (s) => s.history)
  const last = steps[position - 1]
  const next = steps[position]
  return (
    <Box sx={{ display: 'flex' }}>
      <KeyTip
        screen="bench"
        bindings={BENCH_KEYS}
        id="undo"
        title={last ? wording.undo(last.label) : wording.nothingToUndo}
      >
        <span>
          <IconButton aria-label={wording.undoCapital} disabled={!last} onClick={() => session.undo()}>
            <UndoIcon sx={{ fontSize: iconSize.large }} />
          </IconButton>
        </span>
      </KeyTip>
      <KeyTip
        screen="bench"
        bindings={BENCH_KEYS}
        id="redo"
        title={next ? wording.redo(next.label) : wording.nothingToRedo}
      >
        <span>
          <IconButton aria-label={wording.redoCapital} disabled={!next} onClick={() => session.redo()}>
            <RedoIcon sx={{ fontSize: iconSize.large }} />
          </IconButton>
        </span>
      </KeyTip>
    </Box>
  )
}
