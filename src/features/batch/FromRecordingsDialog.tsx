'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import LinearProgress from '@mui/material/LinearProgress'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import type { RecipeId, RecordingId } from '@/core/model/ids'
import { createHighlight, highlightsOnShelf } from '@/store/highlights'
import { recordingsOnShelf } from '@/store/recordings'
import { CheckRow } from '@/ui/CheckRow'
import { formatLength } from '@/ui/format'
import { palette, textSize } from '@/ui/theme'
import { toggled } from '@/ui/toggled'
import type { WholeRecipe } from '@/core/model/recipe'
import { applyToHighlight, LONGEST_CLIP_MICROS } from '@/shared/looks/layOutClip'
import { wording } from './wording'

interface FromRecordingsDialogProps {
  recipes: readonly WholeRecipe[]
  /** How many highlights were made, and by which recipe; how many could not be laid out. */
  onMade: (made: { laidOut: number; left: number; recipeName: string }) => void
  onClose: () => void
}

/** A highlight of each of many recordings, laid out by one recipe. */
export function FromRecordingsDialog({ recipes, onMade, onClose }: FromRecordingsDialogProps) {
  const recordings = useLiveQuery(recordingsOnShelf, [])
  const highlights = useLiveQuery(highlightsOnShelf, [])
  const [chosen, setChosen] = useState<ReadonlySet<RecordingId>>(new Set())
  const [recipeId, setRecipeId] = useState<RecipeId | ''>(recipes[0]?.recipe.id ?? '')
  const [done, setDone] = useState<number | null>(null)
  const short = recordings?.filter((r) => r.durationMicros <= LONGEST_CLIP_MICROS) ?? []
  const wanted = short.filter((r) => chosen.has(r.id))
  const recipe = recipes.find((r) => r.recipe.id === recipeId)
  const cutAlready = (id: RecordingId) =>
    highlights?.filter((h) => h.passages.some((p) => p.recordingId === id)).length ?? 0
  const make = async () => {
    if (!recipe) return
    let laidOut = 0
    for (const [n, recording] of wanted.entries()) {
      setDone(n)
      const made = await createHighlight(recording, { name: recording.name, outMicros: recording.durationMicros })
      if (await applyToHighlight(made, { recipe, setup: null })) laidOut++
    }
    onMade({ laidOut, left: wanted.length - laidOut, recipeName: recipe.recipe.name })
  }
  return (
    <Dialog open onClose={done === null ? onClose : undefined} fullWidth maxWidth="sm">
      <DialogTitle>{wording.layOutRecordingsByA}</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 4 }}>
        <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
          {wording.eachChosenRecordingBecomesA}
        </Typography>
        <TextField
          select
          size="small"
          label={wording.recipe}
          value={recipeId}
          disabled={done !== null}
          onChange={(e) => setRecipeId(e.target.value as RecipeId)}
        >
          {recipes.map(({ recipe: { id, name } }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Box>
          {short.length > 1 && (
            <Button
              disabled={done !== null}
              onClick={() => setChosen(new Set(wanted.length === short.length ? [] : short.map((r) => r.id)))}
            >
              {wanted.length === short.length ? wording.chooseNone : wording.chooseAll}
            </Button>
          )}
          <Box role="list" aria-label={wording.recordings} sx={{ maxHeight: 300, overflowY: 'auto', mt: 1 }}>
            {recordings && short.length === 0 && (
              <Typography sx={{ fontSize: textSize.body, color: palette.inkSoft }}>
                {wording.noRecordingOnTheShelf}
              </Typography>
            )}
            {short.map(({ id, name, durationMicros }) => (
              <CheckRow
                key={id}
                name={name}
                note={`${cutAlready(id) > 0 ? wording.cut(cutAlready(id)) : ''}${formatLength(durationMicros)}`}
                disabled={done !== null}
                checked={chosen.has(id)}
                onChange={() => setChosen((known) => toggled(known, id))}
              />
            ))}
          </Box>
        </Box>
        {done !== null && (
          <LinearProgress
            variant="determinate"
            value={(100 * done) / Math.max(1, wanted.length)}
            aria-label={wording.layingOutOf(done, wanted.length)}
          />
        )}
      </DialogContent>
      <DialogActions>
        <Button disabled={done !== null} onClick={onClose}>
          {wording.close}
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!recipe || wanted.length === 0 || done !== null}
          onClick={() => void make()}
        >
          {wanted.length > 0 ? wording.layOut(wanted.length) : wording.layOutCapital}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
