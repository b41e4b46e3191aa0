'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Typography from '@mui/material/Typography'

/** A screen broke. What was saved is safe; says so and offers a way on. */
export default function ErrorScreen({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <Box role="alert" sx={{ p: 10, maxWidth: 640 }}>
      <Typography component="h1" variant="h1">
        This screen stopped working
      </Typography>
      <Typography sx={{ my: 3 }}>
        Your recordings, highlights and files are kept. The fault is Brimble’s: {error.message}
      </Typography>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <Button variant="contained" color="primary" onClick={reset}>
          Open it again
        </Button>
        <Button href="/">Go to the Shelf</Button>
      </Box>
    </Box>
  )
}
