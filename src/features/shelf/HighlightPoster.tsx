'use client'

import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined'
import Box from '@mui/material/Box'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import Link from 'next/link'
import { iconSize, palette, textSize } from '@/ui/theme'
import { useBlobUrl } from '@/ui/useBlobUrl'
import { usePoster } from '@/shared/recordings/usePoster'
import type { ShelfHighlight } from './useShelf'
import { wording } from './wording'

/** A highlight as a small poster that opens its Bench; its state stands below. */
export function HighlightPoster({ item, onBin }: { item: ShelfHighlight; onBin: () => void }) {
  const { highlight, files } = item
  const url = useBlobUrl(usePoster(highlight))
  const state = files === 0 ? 'draft' : `${files} ${files === 1 ? 'file' : 'files'}`
  return (
    <Box sx={{ position: 'relative', width: 64, '&:hover .bin, &:focus-within .bin': { opacity: 1 } }}>
      <Tooltip title={highlight.name}>
        <Box
          component={Link}
          href={`/highlight/${encodeURIComponent(highlight.id)}`}
          aria-label={wording.openOnTheBench(highlight.name, state)}
          sx={{ display: 'block', textDecoration: 'none', color: files ? palette.leaf : palette.inkSoft }}
        >
          <Box
            sx={{
              width: 40,
              height: 71,
              mx: 'auto',
              bgcolor: palette.mat,
              borderRadius: '2px',
              overflow: 'hidden',
              outline: `1px solid ${palette.line}`,
            }}
          >
            {url && (
              <Box
                component="img"
                src={url}
                alt=""
                sx={{ width: '100%', height: '100%', objectFit: 'contain', display: 'block' }}
              />
            )}
          </Box>
          <Box
            sx={{
              fontSize: textSize.small,
              mt: '3px',
              textAlign: 'center',
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {highlight.name}
          </Box>
        </Box>
      </Tooltip>
      <IconButton
        className="bin"
        aria-label={wording.moveToTheBin(highlight.name)}
        onClick={onBin}
        sx={{
          position: 'absolute',
          top: 1,
          right: 13,
          p: '1px',
          opacity: 0,
          bgcolor: palette.sheet,
          '&:hover': { bgcolor: '#fff' },
        }}
      >
        <DeleteOutlineIcon sx={{ fontSize: iconSize.small }} />
      </IconButton>
    </Box>
  )
}
