import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { textSize } from './theme'

/** What goes on, in words; how much of it is done, 0..1, called `measure`; and a button that ends it. */
export function ProgressLine({
  words,
  share,
  measure,
  stop,
  onStop,
}: {
  words: string
  share: number
  measure: string
  stop: string
  onStop: () => void
}) {
  return (
    <Box role="status" sx={{ display: 'flex', alignItems: 'center', gap: 2, fontSize: textSize.note }}>
      {words}
      <LinearProgress variant="determinate" value={share * 100} aria-label={measure} sx={{ flex: 1, height: 4 }} />
      <Button onClick={onStop}>{stop}</Button>
    </Box>
  )
}
