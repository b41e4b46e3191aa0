'use client'

import Button from '@mui/material/Button'
import Divider from '@mui/material/Divider'
import ListItemText from '@mui/material/ListItemText'
import ListSubheader from '@mui/material/ListSubheader'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { notKeptInEditList, writeEditList } from '@/core/interchange/editList'
import { ffmpegScript } from '@/core/interchange/ffmpeg/ffmpegScript'
import { notKeptInOtio, writeOtio } from '@/core/interchange/otio/writeOtio'
import { recordedRate } from '@/core/output/renderSettings'
import { explain } from '@/diagnostics/note'
import type { MediaIn } from '@/media/bundle/writeBundle'
import { offerDownload } from '@/ui/offerDownload'
import { useBenchContext, useCalmEdit, usePassage } from '../benchContext'
import { aloneOf, bundleOf } from './bundleOf'
import { wording } from './wording'

const BUNDLES: { media: MediaIn; name: string; what: string }[] = [
  {
    media: 'trimmed',
    name: wording.bundleWithWhatIsUsed,
    what: wording.theEditItsPicturesAnd,
  },
  { media: 'whole', name: wording.bundleWithWholeRecordings, what: wording.toGoOnCuttingElsewhere },
  { media: 'none', name: wording.bundleWithoutRecordings, what: wording.forSomebodyWhoHasThem },
]

/** The highlight for another machine, another tool, or an archive. */
export function HandOnMenu() {
  const { files } = useBenchContext()
  const edit = useCalmEdit()
  const { recording } = usePassage()
  const { enqueueSnackbar } = useSnackbar()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const { name, shapes } = edit.highlight
  /** `notKept`: what the file cannot say, told as it is saved. */
  const save = (text: string, ending: string, type: string, notKept: readonly string[] = []) => {
    setAnchor(null)
    if (notKept.length > 0)
      enqueueSnackbar(wording.saved(notKept.join(' ')), { autoHideDuration: 15_000, style: { maxWidth: 560 } })
    offerDownload(new Blob([text], { type }), `${name}.${ending}`)
  }
  const bundle = async (media: MediaIn) => {
    setAnchor(null)
    setShare(0)
    try {
      offerDownload(await bundleOf(edit, media, files, setShare), `${name}.brimble.zip`)
    } catch (error) {
      enqueueSnackbar(wording.theBundleCouldNotBe(explain('writing a bundle', error)), { variant: 'error' })
    } finally {
      setShare(null)
    }
  }
  const [first] = shapes
  return (
    <>
      <Button aria-haspopup="menu" disabled={share !== null} onClick={(e) => setAnchor(e.currentTarget)}>
        {share === null ? wording.handOn : wording.bundling(Math.round(share * 100))}
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { sx: { maxWidth: 400 } } }}
      >
        <ListSubheader role="presentation">{wording.forAnotherBrimble}</ListSubheader>
        {BUNDLES.map(({ media, name, what }) => (
          <MenuItem key={media} onClick={() => void bundle(media)} sx={{ whiteSpace: 'normal' }}>
            <ListItemText primary={name} secondary={what} />
          </MenuItem>
        ))}
        <MenuItem
          onClick={() => void aloneOf(edit).then((text) => save(text, 'brimble.json', 'application/json'))}
          sx={{ whiteSpace: 'normal' }}
        >
          <ListItemText primary={wording.editAlone} secondary={wording.aSmallFileForRenders} />
        </MenuItem>
        <Divider />
        <ListSubheader role="presentation">{wording.forOtherTools}</ListSubheader>
        {first && (
          <MenuItem
            onClick={() => save(writeOtio(edit, first), 'otio', 'application/json', notKeptInOtio(edit, first))}
            sx={{ whiteSpace: 'normal' }}
          >
            <ListItemText
              primary={wording.timelineOpentimelineio}
              secondary={wording.cutsSpeedsJoinsAndMarkers(first.id)}
            />
          </MenuItem>
        )}
        <MenuItem
          onClick={() => save(writeEditList(edit), 'edl', 'text/plain', notKeptInEditList(edit))}
          sx={{ whiteSpace: 'normal' }}
        >
          <ListItemText primary={wording.cutListCmx3600Edl} secondary={wording.cutsSpeedsAndDissolves} />
        </MenuItem>
        {shapes.map((shape) => (
          <MenuItem
            key={shape.id}
            onClick={() =>
              save(ffmpegScript(edit, shape, recordedRate(recording)), `${shape.id}.sh`, 'application/x-sh')
            }
            sx={{ whiteSpace: 'normal' }}
          >
            <ListItemText primary={wording.ffmpegScript(shape.id)} secondary={wording.makesTheSameArrangementFrom} />
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
