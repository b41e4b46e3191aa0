'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useCallback, useState } from 'react'
import type { HighlightId } from '@/core/model/ids'
import type { OutputChoice } from '@/core/model/outputChoice'
import { highlightsOnShelf } from '@/store/highlights'
import { keptRecipes } from '@/store/recipes'
import { palette, textSize } from '@/ui/theme'
import { useGrowing } from '@/ui/useGrowing'
import type { WholeRecipe } from '@/core/model/recipe'
import { OutboxBar } from '@/shared/rendering/OutboxBar'
import { OutboxFrame } from '@/shared/rendering/OutboxFrame'
import { FromRecordingsDialog } from './FromRecordingsDialog'
import { applyToHighlight } from '@/shared/looks/layOutClip'
import { renderAllShapes } from '@/shared/rendering/renderAllShapes'
import { RenderManyDialog } from './RenderManyDialog'
import { SetupQuestions } from './SetupQuestions'
import { SheetCard } from './SheetCard'
import { wording } from './wording'

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
  const toggle = useCallback(
    (id: HighlightId) =>
      setChosen((known) => new Set(known.has(id) ? [...known].filter((k) => k !== id) : [...known, id])),
    [],
  )
  const drawn = useGrowing(highlights?.length ?? 0)
  if (!highlights) return <OutboxFrame>{null}</OutboxFrame>
  const wanted = highlights.filter((h) => chosen.has(h.id))
  const all = wanted.length === highlights.length
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
          <Button onClick={() => setChosen(new Set(all ? [] : highlights.map((h) => h.id)))}>
            {all ? wording.chooseNone : wording.chooseAll}
          </Button>
        )}
        <Typography role="status" sx={{ fontSize: textSize.body, color: palette.inkSoft, flex: 1 }}>
          {busy ?? (recipes?.length === 0 ? wording.keepARecipeOnThe : null)}
        </Typography>
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
      <Box sx={{ flex: 1, overflowY: 'auto', p: 4.5 }}>
        {highlights.length === 0 && (
          <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
            {wording.thereAreNoHighlightsYet}
          </Typography>
        )}
        <Box
          role="list"
          aria-label={wording.highlightsCapital}
          sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(168px, 1fr))', gap: 4 }}
        >
          {highlights.slice(0, drawn).map((highlight) => (
            <SheetCard key={highlight.id} highlight={highlight} chosen={chosen.has(highlight.id)} onToggle={toggle} />
          ))}
        </Box>
      </Box>
    </OutboxFrame>
  )
}
