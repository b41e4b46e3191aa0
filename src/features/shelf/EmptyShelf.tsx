import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { palette } from '@/ui/theme'
import { wording } from './wording'

/** The first visit: what goes here, and the two ways to begin. */
export function EmptyShelf({ onAdd, onDemo, opening }: { onAdd: () => void; onDemo: () => void; opening: boolean }) {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', flex: 1, p: 6 }}>
      <Box
        sx={{
          width: 'min(620px, 100%)',
          p: 8,
          border: `1px dashed ${palette.inkSoft}`,
          borderRadius: 1,
          bgcolor: 'background.paper',
        }}
      >
        <Typography component="h1" variant="h1">
          {wording.yourRecordingsGoHere}
        </Typography>
        <Typography sx={{ mt: 2, color: palette.inkSoft }}>{wording.dropAStreamACall}</Typography>
        <Box sx={{ display: 'flex', gap: 2, mt: 5 }}>
          <Button variant="contained" color="primary" onClick={onAdd}>
            {wording.addRecordings}
          </Button>
          <Button onClick={onDemo} disabled={opening}>
            {opening ? wording.openingTheDemoShelf : wording.openTheDemoShelf}
          </Button>
        </Box>
      </Box>
    </Box>
  )
}
