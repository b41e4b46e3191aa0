import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import Box from '@mui/material/Box'
import type { Recipe } from '@/core/model/recipe'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

type Choice = Pick<Recipe, 'byItself' | 'cutsScenes'>

/** What a recipe does without being asked, for recordings recognised as having its setup. */
export function ByItselfFields({
  setupName,
  value,
  onChange,
}: {
  setupName: string
  value: Choice
  onChange: (change: Partial<Choice>) => void
}) {
  const note = { typography: { sx: { fontSize: textSize.note } } }
  const box = (field: keyof Choice) => (
    <Checkbox
      size="small"
      sx={{ py: 0 }}
      checked={value[field] === true && value.byItself}
      onChange={(_, on) => onChange({ [field]: on })}
    />
  )
  return (
    <Box sx={{ display: 'grid', justifyItems: 'start' }}>
      <FormControlLabel
        control={box('byItself')}
        label={wording.byItselfForRecordingsRecognised(setupName)}
        slotProps={note}
      />
      <FormControlLabel
        control={box('cutsScenes')}
        label={wording.cutIntoScenesByItself}
        disabled={!value.byItself}
        slotProps={note}
      />
    </Box>
  )
}
