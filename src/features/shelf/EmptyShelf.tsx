import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'
import { palette } from '@/ui/theme'

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
          Your recordings go here
        </Typography>
        <Typography sx={{ mt: 2, color: palette.inkSoft }}>
          Drop a stream, a call or a webinar anywhere on this page. Cut the highlight, say where the face and the game
          are, and render it upright. Files stay on this machine: nothing is uploaded.
        </Typography>
        <Box sx={{ display: 'flex', gap: 2, mt: 5 }}>
          <Button variant="contained" color="primary" onClick={onAdd}>
            Add recordings
          </Button>
          <Button onClick={onDemo} disabled={opening}>
            {opening ? 'Opening the demo shelf…' : 'Open the demo shelf'}
          </Button>
        </Box>
      </Box>
    </Box>
  )
}
