'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogContentText from '@mui/material/DialogContentText'
import DialogTitle from '@mui/material/DialogTitle'
import FormControlLabel from '@mui/material/FormControlLabel'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Highlight } from '@/core/model/highlight'
import type { OutletId, RecipeId, RecordingId } from '@/core/model/ids'
import type { Outlet } from '@/core/model/outlet'
import type { WholeRecipe } from '@/core/model/recipe'
import type { Recording } from '@/core/model/recording'
import { STANDARD_SHAPES } from '@/core/model/shape'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import { nullOnError } from '@/diagnostics/note'
import { askForDrafts } from '@/store/draftRuns'
import { highlightsOnShelf } from '@/store/highlights'
import { kept } from '@/store/rack'
import { keptRecipes } from '@/store/recipes'
import { recordingsOnShelf } from '@/store/recordings'
import { CheckRow } from '@/ui/CheckRow'
import { ChoiceField } from '@/ui/ChoiceField'
import { formatLength } from '@/ui/format'
import { NumberField } from '@/ui/NumberField'
import { SecondsField } from '@/ui/SecondsField'
import { palette, textSize } from '@/ui/theme'
import { toggled } from '@/ui/toggled'
import { startDrafts } from './draftRunner'
import { wording } from './wording'

/** So many drafts are made at one time, at most. */
const MOST_DRAFTS = 50

/** Asks what drafts are to be made from and for, and begins. */
export function MakeDraftsDialog({ onClose }: { onClose: () => void }) {
  const rack = useLiveQuery(async () => {
    const [recordings, highlights] = await Promise.all([recordingsOnShelf(), highlightsOnShelf()])
    return { recordings, highlights, outlets: await kept('outlet'), recipes: await keptRecipes() }
  }, [])
  return rack && <MakeDrafts {...rack} onClose={onClose} />
}

interface Props {
  recordings: readonly Recording[]
  highlights: readonly Highlight[]
  outlets: readonly Outlet[]
  recipes: readonly WholeRecipe[]
  onClose: () => void
}

/** Those of which nothing has been cut, or else the newest. */
function usualRecordings({ recordings, highlights }: Pick<Props, 'recordings' | 'highlights'>): RecordingId[] {
  const isCut = (id: RecordingId) => highlights.some((h) => h.passages.some((p) => p.recordingId === id))
  const uncut = recordings.filter((r) => !isCut(r.id))
  return (uncut.length > 0 ? uncut : recordings.slice(0, 1)).map((r) => r.id)
}

const usualOutlet = (outlets: readonly Outlet[]) =>
  outlets.find((o) => o.shape.height > 1.5 * o.shape.width) ?? outlets[0]

function MakeDrafts({ recordings, highlights, outlets, recipes, onClose }: Props) {
  const router = useRouter()
  // As it was when it opened: what is added meanwhile is not chosen behind somebody's back.
  const [chosen, setChosen] = useState<ReadonlySet<RecordingId>>(
    () => new Set(usualRecordings({ recordings, highlights })),
  )
  const [sentTo, setSentTo] = useState<ReadonlySet<OutletId>>(() => {
    const usual = usualOutlet(outlets)
    return new Set(usual ? [usual.id] : [])
  })
  const [recipeId, setRecipeId] = useState<RecipeId | 'suits'>('suits')
  const [count, setCount] = useState(10)
  const [mostMicros, setMost] = useState(60 * MICROS_PER_SECOND)
  const [together, setTogether] = useState(600 * MICROS_PER_SECOND)
  const [takesOutDeadAir, setTakesOut] = useState(true)
  const [writesWords, setWrites] = useState(true)
  const [failed, setFailed] = useState(false)
  const targets = outlets.filter((o) => sentTo.has(o.id))
  const limit = Math.min(mostMicros, ...targets.map((o) => o.longestMicros ?? Infinity))
  const shapes = [...new Map(targets.map(({ shape }) => [shape.id, shape])).values()]
  const begin = async () => {
    const wish = {
      recordingIds: recordings.filter((r) => chosen.has(r.id)).map((r) => r.id),
      count,
      mostTotalMicros: together,
      mostMicros: limit,
      shapes: shapes.length > 0 ? shapes : STANDARD_SHAPES.slice(0, 1),
      outletId: targets[0]?.id ?? null,
      recipeId: recipeId === 'suits' ? null : recipeId,
      takesOutDeadAir,
      writesWords,
    }
    const asked = await askForDrafts(wish).catch(nullOnError('asking for drafts'))
    if (!asked) return setFailed(true)
    startDrafts()
    onClose()
    router.push('/outbox/sheet')
  }
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{wording.makeDrafts}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <DialogContentText>{wording.whatDraftsAre}</DialogContentText>
        <Box>
          <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
            <Typography component="h3" sx={{ fontSize: textSize.body, fontWeight: 700 }}>
              {wording.recordings}
            </Typography>
            <Button
              onClick={() => setChosen(new Set(chosen.size === recordings.length ? [] : recordings.map((r) => r.id)))}
            >
              {chosen.size === recordings.length ? wording.none : wording.all}
            </Button>
          </Box>
          <Box role="list" aria-label={wording.recordings} sx={{ maxHeight: 168, overflowY: 'auto' }}>
            {recordings.map(({ id, name, durationMicros }) => (
              <CheckRow
                key={id}
                name={name}
                note={formatLength(durationMicros)}
                checked={chosen.has(id)}
                onChange={() => setChosen(toggled(chosen, id))}
              />
            ))}
          </Box>
        </Box>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'max-content max-content',
            columnGap: 3,
            rowGap: 2,
            alignItems: 'center',
          }}
        >
          <NumberField
            label={wording.howMany}
            value={count}
            unit=""
            least={1}
            most={MOST_DRAFTS}
            step={1}
            onSet={(n) => setCount(Math.round(n))}
          />
          <SecondsField label={wording.longest} value={limit} least={5} most={600} step={5} onSet={setMost} />
          <SecondsField
            label={wording.longestTogether}
            value={together}
            least={5}
            most={7200}
            step={30}
            onSet={setTogether}
          />
        </Box>
        <Box role="group" aria-label={wording.outlets}>
          <Typography component="h3" sx={{ fontSize: textSize.body, fontWeight: 700 }}>
            {wording.outlets}
          </Typography>
          {outlets.map((o) => (
            <FormControlLabel
              key={o.id}
              label={o.name}
              disabled={recipeId !== 'suits'}
              slotProps={{ typography: { sx: { fontSize: textSize.body } } }}
              control={
                <Checkbox
                  size="small"
                  checked={targets.includes(o)}
                  onChange={() => setSentTo(toggled(sentTo, o.id))}
                />
              }
            />
          ))}
          <Typography sx={{ fontSize: textSize.note, color: palette.inkSoft }}>
            {recipeId !== 'suits' && wording.asTheRecipe}
            {recipeId === 'suits' && outlets.length === 0 && wording.noOutlets}
          </Typography>
        </Box>
        {recipes.length > 0 && (
          <ChoiceField
            label={wording.recipe}
            value={recipeId as string}
            options={{
              suits: wording.whatSuits,
              ...Object.fromEntries(recipes.map(({ recipe }) => [recipe.id, recipe.name])),
            }}
            onChange={(id) => setRecipeId(id as RecipeId | 'suits')}
          />
        )}
        <Box sx={{ display: 'flex', gap: 4 }}>
          <FormControlLabel
            label={wording.takesOutDeadAir}
            control={<Checkbox size="small" checked={takesOutDeadAir} onChange={(_, on) => setTakesOut(on)} />}
          />
          <FormControlLabel
            label={wording.writesWords}
            control={<Checkbox size="small" checked={writesWords} onChange={(_, on) => setWrites(on)} />}
          />
        </Box>
        {failed && (
          <Typography role="alert" sx={{ color: palette.haw, fontSize: textSize.body }}>
            {wording.notKept}
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{wording.cancel}</Button>
        <Button variant="contained" color="primary" disabled={chosen.size === 0} onClick={() => void begin()}>
          {wording.makeDrafts}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
