'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { showsSomebody } from '@/core/model/region'
import { MICROS_PER_SECOND } from '@/core/time/micros'
import type { CutInto } from '@/edit/changes'
import { ChoiceField } from '@/ui/ChoiceField'
import { ProgressLine } from '@/ui/ProgressLine'
import { useBenchContext, useCalmParts, useView } from '../benchContext'
import { SheetBar } from './SheetBar'
import { useChanges, type Pace } from './useChanges'
import { wording } from './wording'

/** So many cuts, and a recording is taken for an edited one: its shots come first, not its scenes. */
const EDITED_FROM = 6

const GOING_WORDS: Record<CutInto, string> = {
  scenes: wording.lookingAtEachScene,
  shots: wording.lookingAtEachShot,
  turns: wording.lookingAtWhoSpeaks,
}

const CHOSEN = { variant: 'contained', color: 'primary' } as const

/**
 * Says how often the picture changes at once in what is worked on, and offers to cut it there. It is there by itself
 * where scenes change, until somebody has closed it.
 */
export function ChangesBar() {
  const asks = useView((v) => v.asksChanges)
  return asks === 'no' ? null : <OpenBar byItself={asks === 'by-itself'} />
}

function OpenBar({ byItself }: { byItself: boolean }) {
  const { view } = useBenchContext()
  const { cuts, sceneChanges, going, cut, follow, cutApart, stop } = useChanges()
  const { setup, recording } = useCalmParts()
  const [pace, setPace] = useState<Pace>('usual')
  const areSeveral = recording.sound !== null && setup.regions.filter((r) => showsSomebody(r.role)).length > 1
  const count = cuts?.length ?? 0
  if (byItself && sceneChanges.length === 0 && !going) return null
  const isEdited = count >= EDITED_FROM
  const words = () => {
    if (cuts === null) return wording.knownOnceLookedAlong
    return count === 0 ? wording.noCutsInThis : `${wording.changesIn(sceneChanges.length, count)}.`
  }
  return (
    <SheetBar
      label={wording.scenesAndShots}
      {...(cuts && { data: { 'data-scene-changes': sceneChanges.map((c) => c / MICROS_PER_SECOND).join(' ') } })}
    >
      {going ? (
        <ProgressLine
          words={GOING_WORDS[going.into]}
          share={going.share}
          measure={wording.partsLookedAt}
          stop={wording.stop}
          onStop={stop}
        />
      ) : (
        <>
          <Box role="status">
            {words()} {count > 0 && wording.theScreenChangesHere}
          </Box>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
            {sceneChanges.length > 0 && (
              <Button {...(isEdited ? {} : CHOSEN)} onClick={() => void cut('scenes')}>
                {wording.cutIntoScenes}
              </Button>
            )}
            {count > 0 && (
              <>
                <Button {...(isEdited ? CHOSEN : {})} onClick={() => void cut('shots')}>
                  {wording.cutIntoShots}
                </Button>
                <Button onClick={() => void cutApart()}>{wording.aHighlightEach}</Button>
              </>
            )}
            {areSeveral && (
              <>
                <Button title={wording.followHelp} onClick={() => void follow(pace)}>
                  {wording.followWhoSpeaks}
                </Button>
                <ChoiceField label={wording.pace} value={pace} options={wording.paces} onChange={setPace} />
              </>
            )}
            <Button onClick={() => view.setState({ asksChanges: 'no' })}>{wording.close}</Button>
          </Box>
        </>
      )}
    </SheetBar>
  )
}
