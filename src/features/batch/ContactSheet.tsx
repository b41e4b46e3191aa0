'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useCallback, useState } from 'react'
import type { Finding } from '@/core/findings/finding'
import type { Highlight } from '@/core/model/highlight'
import type { HighlightId, RecordingId } from '@/core/model/ids'
import type { OutputChoice } from '@/core/model/outputChoice'
import { highlightsOnShelf } from '@/store/highlights'
import { keptRecipes } from '@/store/recipes'
import { recordingsOnShelf } from '@/store/recordings'
import { ChoiceField } from '@/ui/ChoiceField'
import { KeysDialog } from '@/ui/KeysDialog'
import { palette, textSize } from '@/ui/theme'
import { toggled } from '@/ui/toggled'
import { useGrowing } from '@/ui/useGrowing'
import type { WholeRecipe } from '@/core/model/recipe'
import { DraftsBar } from '@/shared/drafts/DraftsBar'
import { MakeDraftsButton } from '@/shared/drafts/MakeDraftsButton'
import { OutboxBar } from '@/shared/rendering/OutboxBar'
import { OutboxFrame } from '@/shared/rendering/OutboxFrame'
import { FromRecordingsDialog } from './FromRecordingsDialog'
import { applyToHighlight } from '@/shared/looks/layOutClip'
import { renderAllShapes } from '@/shared/rendering/renderAllShapes'
import { RenderManyDialog } from './RenderManyDialog'
import { SetupQuestions } from './SetupQuestions'
import { SheetCard } from './SheetCard'
import { useDecisions } from './useDecisions'
import { useMarked } from './useMarked'
import { SHEET_KEYS } from './useSheetKeys'
import { wording } from './wording'

/** Which highlights are shown. */
type Shown = 'all' | 'open' | 'kept' | 'warned'
const SHOWN: readonly Shown[] = ['all', 'open', 'kept', 'warned']
const SHOWN_WORDS: Record<Shown, string> = {
  all: wording.everything,
  open: wording.openDrafts,
  kept: wording.keptDrafts,
  warned: wording.withWarnings,
}

function isShown({ draft }: Highlight, show: Shown, isWarned: boolean): boolean {
  switch (show) {
    case 'all':
      return true
    case 'open':
      return draft !== undefined && !draft.isKept
    case 'kept':
      return draft?.isKept === true
    case 'warned':
      return isWarned
  }
}

/**
 * Every highlight at once, with what is wrong with each: lay out many in one action, put the odd one right, render
 * all.
 */
export function ContactSheet() {
  const highlights = useLiveQuery(highlightsOnShelf, [])
  const recipes = useLiveQuery(keptRecipes, [])
  const [chosen, setChosen] = useState<ReadonlySet<HighlightId>>(new Set())
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [busy, setBusy] = useState<string | null>(null)
  const [fromRecordings, setFromRecordings] = useState(false)
  const [asking, setAsking] = useState(false)
  const { enqueueSnackbar } = useSnackbar()
  const toggle = useCallback((id: HighlightId) => setChosen((known) => toggled(known, id)), [])
  const [show, setShow] = useState<Shown>('all')
  const [recordingId, setRecordingId] = useState<RecordingId | 'all'>('all')
  const [warned, setWarned] = useState<ReadonlyMap<HighlightId, boolean>>(new Map())
  const [keysOpen, setKeysOpen] = useState(false)
  const recordings = useLiveQuery(recordingsOnShelf, [])
  const onFound = useCallback(
    (id: HighlightId, found: readonly Finding[]) =>
      setWarned((known) =>
        new Map(known).set(
          id,
          found.some((f) => f.severity !== 'note'),
        ),
      ),
    [],
  )
  const decisions = useDecisions()
  const shown = (highlights ?? []).filter(
    (h) =>
      isShown(h, show, warned.get(h.id) === true) &&
      (recordingId === 'all' || h.passages.some((p) => p.recordingId === recordingId)),
  )
  const marked = useMarked(shown, { decisions, toggle, showKeys: () => setKeysOpen(true) })
  const drawn = useGrowing(shown.length)
  if (!highlights) return <OutboxFrame>{null}</OutboxFrame>
  const used = (recordings ?? []).filter((r) => highlights.some((h) => h.passages.some((p) => p.recordingId === r.id)))
  const kept = highlights.filter((h) => h.draft?.isKept)
  const wanted = highlights.filter((h) => chosen.has(h.id))
  const all = shown.length > 0 && shown.every((h) => chosen.has(h.id))
  const layOut = async (recipe: WholeRecipe) => {
    setAnchor(null)
    let done = 0
    for (const highlight of wanted) {
      setBusy(wording.layingOutOf(done, wanted.length))
      if (await applyToHighlight(highlight, { recipe, setup: null })) done++
    }
    setBusy(null)
    tellLaidOut({ laidOut: done, left: wanted.length - done, recipeName: recipe.recipe.name })
  }
  const tellLaidOut = ({ laidOut, left, recipeName }: { laidOut: number; left: number; recipeName: string }) => {
    setFromRecordings(false)
    enqueueSnackbar(wording.laidOutByEachCan(laidOut, recipeName, left), { variant: left > 0 ? 'error' : 'default' })
  }
  const renderAll = async (output: OutputChoice | null) => {
    setAsking(false)
    let files = 0
    for (const { id } of wanted) {
      setBusy(wording.queueingFiles(files))
      files += await renderAllShapes(id, output)
    }
    setBusy(null)
    setChosen(new Set())
    enqueueSnackbar(wording.renderingYouCanGoOn(files))
  }
  return (
    <OutboxFrame>
      <OutboxBar label={wording.whatToDoWithThem}>
        <Typography component="h1" sx={{ fontSize: textSize.lead, fontWeight: 700 }}>
          {wanted.length > 0
            ? wording.ofChosen(wanted.length, highlights.length)
            : `${highlights.length} ${highlights.length === 1 ? wording.highlight : wording.highlights}`}
        </Typography>
        {highlights.length > 0 && (
          <Button onClick={() => setChosen(new Set(all ? [] : shown.map((h) => h.id)))}>
            {all ? wording.chooseNone : wording.chooseAll}
          </Button>
        )}
        {kept.length > 0 && (
          <Button onClick={() => setChosen(new Set(kept.map((h) => h.id)))}>{wording.chooseKept(kept.length)}</Button>
        )}
        <Typography role="status" sx={{ fontSize: textSize.body, color: palette.inkSoft, flex: 1 }}>
          {busy ?? (recipes?.length === 0 ? wording.keepARecipeOnThe : null)}
        </Typography>
        <MakeDraftsButton disabled={busy !== null || !recordings?.length} />
        <Button disabled={busy !== null || !recipes?.length} onClick={() => setFromRecordings(true)}>
          {wording.fromRecordings}
        </Button>
        <Button
          aria-haspopup="menu"
          disabled={wanted.length === 0 || busy !== null || !recipes?.length}
          onClick={(e) => setAnchor(e.currentTarget)}
        >
          {wording.layOutByARecipe}
        </Button>
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
          {recipes?.map((recipe) => (
            <MenuItem key={recipe.recipe.id} onClick={() => void layOut(recipe)}>
              {recipe.recipe.name}
            </MenuItem>
          ))}
        </Menu>
        {fromRecordings && recipes && (
          <FromRecordingsDialog recipes={recipes} onMade={tellLaidOut} onClose={() => setFromRecordings(false)} />
        )}
        {keysOpen && <KeysDialog screen="sheet" bindings={SHEET_KEYS} notes={[]} onClose={() => setKeysOpen(false)} />}
        {asking && (
          <RenderManyDialog
            highlights={wanted}
            onRender={(output) => void renderAll(output)}
            onClose={() => setAsking(false)}
          />
        )}
        <Button
          variant="contained"
          color="primary"
          disabled={wanted.length === 0 || busy !== null}
          onClick={() => setAsking(true)}
        >
          {wording.renderOfCount(wanted.length)}
        </Button>
      </OutboxBar>
      <SetupQuestions />
      <DraftsBar />
      {highlights.length > 0 && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 3, px: 4.5, pt: 3, flexWrap: 'wrap' }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label={wording.show}
            value={show}
            onChange={(_, value: Shown | null) => value && setShow(value)}
            sx={{ '& .MuiToggleButton-root': { color: palette.ink } }}
          >
            {SHOWN.map((value) => (
              <ToggleButton key={value} value={value}>
                {SHOWN_WORDS[value]}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          {used.length > 1 && (
            <ChoiceField
              label={wording.recordingFilter}
              value={recordingId as string}
              options={{ all: wording.everyRecording, ...Object.fromEntries(used.map((r) => [r.id, r.name])) }}
              onChange={(id) => setRecordingId(id as RecordingId | 'all')}
            />
          )}
          <Box sx={{ flex: 1 }} />
          <Button onClick={() => setKeysOpen(true)}>{wording.keys}</Button>
        </Box>
      )}
      <Box sx={{ flex: 1, overflowY: 'auto', p: 4.5 }}>
        {highlights.length === 0 && (
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.thereAreNoHighlightsYet}
          </Typography>
        )}
        {highlights.length > 0 && shown.length === 0 && (
          <Typography role="status" sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.nothingToShow}
          </Typography>
        )}
        <Box
          role="list"
          aria-label={wording.highlightsCapital}
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(168px, 1fr))', gap: 4 }}
        >
          {shown.slice(0, drawn).map((highlight) => (
            <SheetCard
              key={highlight.id}
              highlight={highlight}
              isChosen={chosen.has(highlight.id)}
              isMarked={marked.id === highlight.id}
              isPlaying={marked.playing === highlight.id}
              isNaming={marked.naming === highlight.id}
              decisions={decisions}
              onMark={marked.mark}
              onToggle={toggle}
              onPlay={marked.togglePlaying}
              onNamed={marked.stopNaming}
              onFound={onFound}
            />
          ))}
        </Box>
      </Box>
    </OutboxFrame>
  )
}
