'use client'

import Box from '@mui/material/Box'
import type { Recording } from '@/core/model/recording'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { palette } from '@/ui/theme'
import { STRIP_PICTURES, useStrip } from '@/shared/recordings/useStrip'

/** Pictures across a recording, on a dark mat. */
export function RecordingStrip({ recording }: { recording: Recording }) {
  const pictures = useStrip(recording)
  return (
    <Box
      aria-hidden
      sx={{
        display: 'flex',
        gap: '2px',
        height: 64,
        p: '5px',
        bgcolor: palette.mat,
        borderRadius: '2px',
        overflow: 'hidden',
      }}
    >
      {Array.from({ length: STRIP_PICTURES }, (_, i) => (
        <StripPicture key={i} picture={pictures?.[i]} />
      ))}
    </Box>
  )
}

function StripPicture({ picture }: { picture: Blob | undefined }) {
  const url = useBlobUrl(picture)
  return (
    <Box sx={{ flex: 1, minWidth: 0, bgcolor: '#383A39', overflow: 'hidden' }}>
      {url && (
        <Box
          component="img"
          src={url}
          alt=""
          sx={{ width: '100%', height: '100%', objectFit: 'cover', display: 'block' }}
        />
      )}
    </Box>
  )
}
