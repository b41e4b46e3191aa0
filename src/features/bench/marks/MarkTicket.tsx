'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import TextField from '@mui/material/TextField'
import { useRef } from 'react'
import { isHung, type MarkOf, type PictureMark } from '@/core/model/pictureMark'
import type { TextStyle } from '@/core/model/textStyle'
import { ChoiceField } from '@/ui/ChoiceField'
import { PercentField } from '@/ui/PercentField'
import { ColourField } from '@/ui/ColourField'
import { SecondsField } from '@/ui/SecondsField'
import { textSize } from '@/ui/theme'
import { Ticket } from '@/ui/Ticket'
import { removeMark, setMark } from '@/edit/marks'
import { useBenchContext } from '../benchContext'
import { TimeFields } from '../TimeFields'
import { FontField } from '../words/FontField'
import { wording } from './wording'

const EDGES: Record<MarkOf<'progress'>['edge'], string> = {
  top: wording.topEdge,
  bottom: wording.bottomEdge,
  left: wording.leftEdge,
  right: wording.rightEdge,
}
const FORMS: Record<MarkOf<'level'>['form'], string> = { bars: 'bars', line: wording.aLine }

/** How a mark looks and when it is on. */
export function MarkTicket({
  mark,
  name,
  anchor,
  onClose,
}: {
  mark: PictureMark
  name: string
  anchor: HTMLElement
  onClose: () => void
}) {
  const { session } = useBenchContext()
  return (
    <Ticket label={wording.moreAbout(name)} anchor={anchor} onClose={onClose} width={400} gap={2.5}>
      <Look mark={mark} />
      {isHung(mark) && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={mark.findsPlace === true}
              onChange={(_, findsPlace) =>
                setMark(session, { mark, label: wording.findsItsPlace, change: { findsPlace } })
              }
            />
          }
          label={wording.keepsClearOfFacesAndText}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
      )}
      {mark.kind !== 'endCard' && (
        <TimeFields
          fromMicros={mark.fromMicros}
          toMicros={mark.toMicros}
          onSet={(change, gesture) => setMark(session, { mark, label: wording.whenAMarkIsOn, change }, gesture)}
        />
      )}
      <Box>
        <Button
          onClick={() => {
            onClose()
            removeMark(session, { id: mark.id })
          }}
        >
          {wording.remove}
        </Button>
      </Box>
    </Ticket>
  )
}

const twoColumns = {
  display: 'grid',
  gridTemplateColumns: '1fr auto',
  rowGap: 1.5,
  columnGap: 3,
  alignItems: 'center',
} as const

function Look({ mark }: { mark: PictureMark }) {
  const { session } = useBenchContext()
  const gesture = useRef(crypto.randomUUID())
  const written = (label: string, onSet: (text: string) => void) =>
    'text' in mark && (
      <TextField
        size="small"
        autoFocus
        label={label}
        value={mark.text}
        onChange={(e) => onSet(e.target.value)}
        slotProps={{ htmlInput: { maxLength: mark.kind === 'handle' ? 60 : 200 } }}
      />
    )
  switch (mark.kind) {
    case 'handle':
      return (
        <>
          {written(wording.handle, (text) =>
            setMark(session, { mark, label: wording.writeTheHandle, change: { text } }, gesture.current),
          )}
          <Letters
            style={mark.style}
            onSet={(style, g) => setMark(session, { mark, label: wording.lettersOfTheHandle, change: { style } }, g)}
          />
        </>
      )
    case 'countdown':
      return (
        <Letters
          style={mark.style}
          onSet={(style, g) => setMark(session, { mark, label: wording.lettersOfTheCountdown, change: { style } }, g)}
        />
      )
    case 'picture':
      return (
        <Box sx={twoColumns}>
          <PercentField
            label={wording.widthOfTheShorterSide}
            least={2}
            most={100}
            step={1}
            value={mark.width}
            onSet={(share, g) => setMark(session, { mark, label: wording.resizePicture, change: { width: share } }, g)}
          />
          <PercentField
            label={wording.opacity}
            least={0}
            most={100}
            step={5}
            value={mark.opacity}
            onSet={(share, g) => setMark(session, { mark, label: wording.setOpacity, change: { opacity: share } }, g)}
          />
        </Box>
      )
    case 'level':
      return (
        <>
          <ChoiceField
            label={wording.drawnAs}
            value={mark.form}
            options={FORMS}
            onChange={(form) =>
              setMark(session, {
                mark,
                label: wording.changeSoundLevel,
                change: { form: form },
              })
            }
          />
          <ColourField
            label={wording.colour}
            value={mark.colour}
            onSet={(colour, g) =>
              setMark(session, { mark, label: wording.colourOfTheSoundLevel, change: { colour } }, g)
            }
          />
          <Box sx={twoColumns}>
            <PercentField
              label={wording.opacity}
              least={0}
              most={100}
              step={5}
              value={mark.opacity}
              onSet={(share, g) => setMark(session, { mark, label: wording.setOpacity, change: { opacity: share } }, g)}
            />
          </Box>
        </>
      )
    case 'progress':
      return (
        <>
          <ChoiceField
            label={wording.alongThe}
            value={mark.edge}
            options={EDGES}
            onChange={(edge) =>
              setMark(session, {
                mark,
                label: wording.moveProgressBar,
                change: { edge: edge },
              })
            }
          />
          <ColourField
            label={wording.whatIsOver}
            value={mark.colour}
            onSet={(colour, g) =>
              setMark(session, { mark, label: wording.colourOfTheProgressBar, change: { colour } }, g)
            }
          />
          <ColourField
            label={wording.whatIsToCome}
            value={mark.behind}
            onSet={(behind, g) =>
              setMark(session, { mark, label: wording.colourOfTheProgressBar, change: { behind } }, g)
            }
          />
          <Box sx={twoColumns}>
            <PercentField
              label={wording.thicknessOfTheShorterSide}
              least={0.2}
              most={10}
              step={0.2}
              decimals={1}
              value={mark.thickness}
              onSet={(share, g) =>
                setMark(session, { mark, label: wording.thicknessOfTheProgressBar, change: { thickness: share } }, g)
              }
            />
          </Box>
        </>
      )
    case 'endCard':
      return (
        <>
          {written(wording.words, (text) =>
            setMark(session, { mark, label: wording.writeTheEndCard, change: { text } }, gesture.current),
          )}
          <FontField
            style={mark.style}
            onSet={(part) =>
              setMark(session, { mark, label: wording.fontOfTheEndCard, change: { style: { ...mark.style, ...part } } })
            }
          />
          <ColourField
            label={wording.colourOfTheWords}
            value={mark.style.colour}
            onSet={(colour, g) =>
              setMark(
                session,
                { mark, label: wording.colourOfTheEndCard, change: { style: { ...mark.style, colour } } },
                g,
              )
            }
          />
          <ColourField
            label={wording.ground}
            value={mark.ground}
            onSet={(ground, g) => setMark(session, { mark, label: wording.groundOfTheEndCard, change: { ground } }, g)}
          />
          <Box sx={twoColumns}>
            <SecondsField
              label={wording.forTheLast}
              least={0.5}
              most={30}
              step={0.5}
              decimals={1}
              value={mark.lengthMicros}
              onSet={(micros, g) =>
                setMark(
                  session,
                  {
                    mark,
                    label: wording.lengthOfTheEndCard,
                    change: { lengthMicros: micros },
                  },
                  g,
                )
              }
            />
          </Box>
        </>
      )
  }
}

function Letters({ style, onSet }: { style: TextStyle; onSet: (style: TextStyle, gesture?: string) => void }) {
  return (
    <>
      <FontField style={style} onSet={(part) => onSet({ ...style, ...part })} />
      <ColourField
        label={wording.colour}
        value={style.colour}
        onSet={(colour, gesture) => onSet({ ...style, colour }, gesture)}
      />
      <Box sx={twoColumns}>
        <PercentField
          label={wording.lettersOfTheShorterSide}
          least={2}
          most={30}
          step={0.5}
          decimals={1}
          value={style.size}
          onSet={(share, gesture) => onSet({ ...style, size: share }, gesture)}
        />
      </Box>
    </>
  )
}
