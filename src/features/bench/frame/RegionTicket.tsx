'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useSnackbar } from 'notistack'
import { placePanels } from '@/core/compose/placePanels'
import { toEvenPixels } from '@/core/geometry/evenGrid'
import type { Rect } from '@/core/geometry/rect'
import type { Region } from '@/core/model/region'
import { title } from '@/core/model/record'
import { Ticket } from '@/ui/Ticket'
import {
  copyRegion,
  orderRegion,
  removeRegion,
  setFocus,
  setRegion,
  clearShift,
  placeRegion,
  setPath,
} from '@/edit/regions'
import { isShifted } from '@/core/compose/regionIn'
import { newId, type RegionId } from '@/core/model/ids'
import { useBenchContext, useEdit, useParts, useView } from '../benchContext'
import { OutlineFields } from '../OutlineFields'
import { lookAt, tightened } from '@/shared/looks/looks'
import { useLook, useScene } from './useLook'
import { textSize } from '@/ui/theme'
import { wording } from './wording'

const PROPORTIONS: readonly { words: string; value: number }[] = [
  { words: '16:9', value: 16 / 9 },
  { words: '4:3', value: 4 / 3 },
  { words: wording.square, value: 1 },
  { words: '9:16', value: 9 / 16 },
]

/** All that can be set about a region besides its place. */
export function RegionTicket({
  region,
  index,
  count,
  anchor,
  onClose,
}: {
  region: Region
  index: number
  count: number
  anchor: HTMLElement
  onClose: () => void
}) {
  const { session, files, view } = useBenchContext()
  const edit = useEdit()
  const { recording, passage } = useParts()
  const { enqueueSnackbar } = useSnackbar()
  const scene = useScene()
  const look = useLook()
  const follows = passage.cropPaths.some((p) => p.regionId === region.id)
  const lookingAlong = useView((v) => v.wantsFollow === region.id)
  const pixels = toEvenPixels(region.bounds, recording.video)
  const shape = edit.highlight.shapes[0]
  const panel = shape && placePanels(edit, shape, passage).find((p) => p.region?.id === region.id)?.rect
  const choices = [
    ...PROPORTIONS,
    ...(panel ? [{ words: wording.ofItsPanel, value: panel.width / panel.height }] : []),
    { words: wording.asItIs, value: pixels.width / pixels.height },
  ]
  const held = region.proportion
  const holdIndex = held === null ? -1 : choices.findIndex((c) => Math.abs(c.value - held) < 1e-3)
  const tighten = async () => {
    const file = files.get(recording.id)
    if (look?.kind !== 'seen' && (!file || !(await lookAt(scene, file, session.value)))) return
    const tight = await tightened(scene, pixels)
    if (!tight) return
    const [left, top, right, bottom] = [
      tight.x - pixels.x,
      tight.y - pixels.y,
      pixels.x + pixels.width - tight.x - tight.width,
      pixels.y + pixels.height - tight.y - tight.height,
    ]
    if (left + top + right + bottom === 0) return void enqueueSnackbar(wording.hasNoBorderAndNo(region.name))
    placeRegion(session, passage, recording.video, region, tight, wording.tighten(region.name), crypto.randomUUID())
    enqueueSnackbar(
      `${region.name} is tighter by ${left} px on the left, ${top} at the top, ${right} on the right, ${bottom} at the bottom.`,
    )
  }
  const leave = (action: () => void) => () => {
    onClose()
    action()
  }
  return (
    <Ticket label={wording.moreAbout(region.name)} anchor={anchor} onClose={onClose}>
      <Box sx={{ display: 'grid', rowGap: 2 }}>
        <TextField
          size="small"
          label={wording.name}
          defaultValue={region.name}
          onBlur={(e) => {
            const named = title.safeParse(e.target.value)
            if (named.success && named.data !== region.name)
              setRegion(session, { id: region.id, label: wording.nameRegion, change: { name: named.data } })
          }}
        />
        <TextField
          select
          size="small"
          label={wording.proportion}
          value={holdIndex}
          disabled={region.locked}
          onChange={(e) =>
            setRegion(session, {
              id: region.id,
              label: wording.holdProportion,
              change: { proportion: choices[Number(e.target.value)]?.value ?? null },
            })
          }
        >
          <MenuItem value={-1}>{wording.free}</MenuItem>
          {choices.map(({ words }, n) => (
            <MenuItem key={words} value={n}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1, my: 1 }}>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={region.locked}
              onChange={(_, locked) =>
                setRegion(session, {
                  id: region.id,
                  label: locked ? wording.lockRegion : wording.unlockRegion,
                  change: { locked },
                })
              }
            />
          }
          label={wording.locked}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={region.hidden}
              onChange={(_, hidden) =>
                setRegion(session, {
                  id: region.id,
                  label: hidden ? wording.hideOutline : wording.showOutline,
                  change: { hidden },
                })
              }
            />
          }
          label={wording.outlineHidden}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
        <FormControlLabel
          title={wording.aPartOfItThat}
          control={
            <Checkbox
              size="small"
              disabled={region.locked}
              checked={region.focus !== null}
              onChange={(_, on) =>
                setFocus(session, {
                  frame: recording.video,
                  id: region.id,
                  pixels: on ? middleOf(pixels) : null,
                  label: on ? wording.addFocus : wording.removeFocus,
                })
              }
            />
          }
          label={wording.focusCapital}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
      </Box>
      <OutlineFields
        outline={region.outline}
        onSet={(outline, label, gesture) => setRegion(session, { id: region.id, label, change: { outline } }, gesture)}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5, my: 2 }}>
        {follows ? (
          <Button
            onClick={() =>
              setPath(session, { passageId: passage.id, region, keys: [], label: wording.standsStill(region.name) })
            }
          >
            {wording.standStillInThisPassage}
          </Button>
        ) : (
          <Button
            title={wording.cropsKeepTheFaceOr}
            disabled={lookingAlong}
            onClick={() => view.setState({ wantsFollow: region.id })}
          >
            {lookingAlong ? wording.lookingAlong : wording.followInThisPassage}
          </Button>
        )}
        {isShifted(passage, region.id) && (
          <Button onClick={() => clearShift(session, { passageId: passage.id, region })}>
            {wording.asInAllPassagesAgain}
          </Button>
        )}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
        <Button disabled={region.locked || look?.kind === 'looking'} onClick={() => void tighten()}>
          {look?.kind === 'looking' ? wording.looking : wording.tightenCapital}
        </Button>
        <Button onClick={leave(() => copyRegion(session, { id: region.id, copyId: newId<RegionId>() }))}>
          {wording.copy}
        </Button>
        <Button disabled={index === 0} onClick={() => orderRegion(session, { id: region.id, by: -1 })}>
          {wording.moveUp}
        </Button>
        <Button disabled={index === count - 1} onClick={() => orderRegion(session, { id: region.id, by: 1 })}>
          {wording.moveDown}
        </Button>
        <Button disabled={region.locked} onClick={leave(() => removeRegion(session, { id: region.id }))}>
          {wording.remove}
        </Button>
      </Box>
    </Ticket>
  )
}

/** Where a focus begins: half of each side, in the middle. */
function middleOf({ x, y, width, height }: Rect): Rect {
  return { x: x + width / 4, y: y + height / 4, width: width / 2, height: height / 2 }
}
