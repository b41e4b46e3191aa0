import Alert from '@mui/material/Alert'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import Link from 'next/link'
import { TopBar } from './TopBar'

/** A screen while what it shows is being opened. */
export function Opening({ what }: { what: string }) {
  return (
    <>
      <TopBar />
      <LinearProgress aria-label={`Opening the ${what}`} sx={{ borderRadius: 0, height: 3 }} />
    </>
  )
}

/** A screen that has nothing to show: why, and the way back. */
export function CannotOpen({ message }: { message: string }) {
  return (
    <>
      <TopBar />
      <Box sx={{ p: 10, display: 'grid', gap: 4, justifyItems: 'start' }}>
        <Alert severity="error">{message}</Alert>
        <Button component={Link} href="/">
          Go to the Shelf
        </Button>
      </Box>
    </>
  )
}
