'use client'

import CloseFullscreenIcon from '@mui/icons-material/CloseFullscreen'
import LinkIcon from '@mui/icons-material/Link'
import LinkOffIcon from '@mui/icons-material/LinkOff'
import OpenInFullIcon from '@mui/icons-material/OpenInFull'
import SmartphoneIcon from '@mui/icons-material/Smartphone'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { memo, useMemo, useRef, type ReactNode } from 'react'
import { arrangementIn } from '@/core/compose/arrangementIn'
import { placePanels } from '@/core/compose/placePanels'
import { solve, type SolvedArea } from '@/core/layout/solve'
import { passageOf } from '@/core/model/edit'
import type { Shape } from '@/core/model/shape'
import type { PreviewTarget } from '@/media/workers/preview.protocol'
import { formatSize } from '@/ui/format'
import { fonts, iconSize, palette, textSize } from '@/ui/theme'
import { useNearScreen } from '@/ui/useNearScreen'
import { usePreviewCanvas } from '@/ui/usePreviewCanvas'
import { followOthers, goOwnWay } from '@/edit/layouts'
import { partsOf, useBenchContext, useEditIn, useParts, useView } from '../benchContext'
import { ShapeMarks } from '../gauges/FoundMarks'
import { OverPicture } from '../marks/OverPicture'
import { PanelBox } from './PanelBox'
import { SeamHandle } from './SeamHandle'
import { shapeName } from './shapeNames'
import { ZoneMarks } from './ZoneMarks'
import { wording } from './wording'

/**
 * How wide a shape is shown, by how it is looked at. A phone is about this wide; CSS knows how long a millimetre is
 * meant to be.
 */
const WIDTHS = {
  among: (p: number) => `calc(52dvh * ${p})`,
  full: (p: number) => `calc((100dvh - 262px) * ${p})`,
  phone: (p: number) => (p < 1 ? '68mm' : `calc(68mm * ${p})`),
}

/** The result in one shape, live; its panels and seams can be grabbed. */
export const ShapeView = memo(function ShapeView({ shape }: { shape: Shape }) {
  const { player } = useBenchContext()
  const edit = useEditIn('shapes')
  const trial = useView((v) => v.trial)
  const outlined = useView((v) => v.outlines) && !trial
  const alone = useView((v) => (v.alone?.shapeId === shape.id ? v.alone.as : null))
  const host = useRef<HTMLDivElement>(null)
  const { id, width, height } = shape
  const target = useMemo<PreviewTarget>(() => ({ kind: 'shape', shape: { id, width, height } }), [id, width, height])
  // A big highlight has many shapes, with many things to take hold of in each: not where nobody looks.
  const isNear = useNearScreen(host)
  usePreviewCanvas(player, host, isNear ? target : null, wording.result(id))
  const outlines = outlined && isNear
  const passageId = useView((v) => v.passageId)
  const { passage } = partsOf(edit, passageId)
  const placed = useMemo(() => placePanels(edit, shape, passage), [edit, shape, passage])
  const { titles, cues, captions } = edit.highlight.words
  const written = { titleArea: titles.length > 0, captionArea: cues.length > 0 && captions.shown }
  const { seams, areas } = useMemo(() => solve(arrangementIn(edit, passage, shape), shape), [edit, passage, shape])
  return (
    <Box component="figure" sx={{ m: 0, width: '100%', maxWidth: WIDTHS[alone ?? 'among'](width / height) }}>
      <Box
        ref={host}
        data-testid={`shape-${id}`}
        sx={{ position: 'relative', width: '100%', aspectRatio: `${width} / ${height}`, touchAction: 'none' }}
      >
        {!trial &&
          isNear &&
          placed.map((panel) => <PanelBox key={panel.panel.id} placed={panel} shape={shape} outlines={outlines} />)}
        {outlines &&
          areas.map((area) => (
            <AreaMark key={`${area.kind} ${area.rect.y}`} area={area} shape={shape} named={!written[area.kind]} />
          ))}
        {outlines &&
          seams.map((seam) => <SeamHandle key={[...seam.path, seam.index].join('.')} seam={seam} shape={shape} />)}
        {!trial && isNear && <OverPicture shape={shape} shown={outlines} />}
        <ZoneMarks shape={shape} />
        {outlines && <ShapeMarks shape={shape} />}
        <PointedAt shape={shape} />
        <GuideLines shape={shape} />
      </Box>
      <Caption shape={shape} />
    </Box>
  )
})

/** Where words will go; its name only until there are some, which it would show through. */
function AreaMark({ area: { kind, rect }, shape, named }: { area: SolvedArea; shape: Shape; named: boolean }) {
  return (
    <Box
      aria-hidden
      sx={{
        position: 'absolute',
        pointerEvents: 'none',
        display: 'grid',
        placeItems: 'center',
        border: '1px dashed rgba(255,255,255,0.55)',
        color: 'rgba(255,255,255,0.75)',
        fontSize: textSize.tiny,
        left: `${(100 * rect.x) / shape.width}%`,
        top: `${(100 * rect.y) / shape.height}%`,
        width: `${(100 * rect.width) / shape.width}%`,
        height: `${(100 * rect.height) / shape.height}%`,
      }}
    >
      {named && (kind === 'titleArea' ? wording.title : wording.captions)}
    </Box>
  )
}

/** Where the fault is that is being looked at. */
function PointedAt({ shape }: { shape: Shape }) {
  const rect = useView((v) => (v.pointedAt?.shapeId === shape.id ? v.pointedAt.rect : null))
  if (!rect) return null
  return (
    <Box
      aria-hidden
      data-testid="pointed-at"
      sx={{
        position: 'absolute',
        zIndex: 6,
        pointerEvents: 'none',
        border: `2px solid ${palette.haw}`,
        boxShadow: '0 0 0 1px #fff, inset 0 0 0 1px #fff',
        left: `${(100 * rect.x) / shape.width}%`,
        top: `${(100 * rect.y) / shape.height}%`,
        width: `${(100 * rect.width) / shape.width}%`,
        height: `${(100 * rect.height) / shape.height}%`,
      }}
    />
  )
}

/** What an inset that is being dragged has come to rest on. */
function GuideLines({ shape }: { shape: Shape }) {
  const guides = useView((v) => (v.guides?.shapeId === shape.id ? v.guides : null))
  return (
    <>
      {guides?.x.map((x) => (
        <Box
          key={`x${x}`}
          aria-hidden
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            width: '1px',
            bgcolor: '#F2C94C',
            pointerEvents: 'none',
            left: `${(100 * x) / shape.width}%`,
          }}
        />
      ))}
      {guides?.y.map((y) => (
        <Box
          key={`y${y}`}
          aria-hidden
          sx={{
            position: 'absolute',
            left: 0,
            right: 0,
            height: '1px',
            bgcolor: '#F2C94C',
            pointerEvents: 'none',
            top: `${(100 * y) / shape.height}%`,
          }}
        />
      ))}
    </>
  )
}

function Caption({ shape }: { shape: Shape }) {
  const { session, view } = useBenchContext()
  const { passage, layout } = useParts()
  const alone = useView((v) => v.alone)
  const own = layout.perShape[shape.id] !== undefined
  const several = useView(() => session.value.highlight.shapes.length > 1)
  const look = (as: 'full' | 'phone') => view.setState({ alone: alone?.as === as ? null : { shapeId: shape.id, as } })
  return (
    <Box
      component="figcaption"
      sx={{
        display: 'flex',
        alignItems: 'center',
        flexWrap: 'wrap',
        columnGap: 0.5,
        mt: 1,
        color: '#C9CCC6',
        fontFamily: fonts.numbers,
        fontSize: textSize.small,
        whiteSpace: 'nowrap',
      }}
    >
      <span>
        {shapeName(shape)} {formatSize(shape)}
      </span>
      <Small
        label={alone?.as === 'full' ? wording.backToAllShapes : wording.seeAsLargeAsCan(shapeName(shape))}
        onClick={() => look('full')}
      >
        {alone?.as === 'full' ? (
          <CloseFullscreenIcon sx={{ fontSize: iconSize.small }} />
        ) : (
          <OpenInFullIcon sx={{ fontSize: iconSize.small }} />
        )}
      </Small>
      <Small
        label={alone?.as === 'phone' ? wording.leaveTheSizeOfA : wording.seeInTheSizeOf(shapeName(shape))}
        pressed={alone?.as === 'phone'}
        onClick={() => look('phone')}
      >
        <SmartphoneIcon sx={{ fontSize: iconSize.small }} />
      </Small>
      {(several || own) && (
        <Small
          label={own ? wording.isArrangedByItselfLet(shapeName(shape)) : wording.arrangeByItself(shapeName(shape))}
          pressed={own}
          onClick={() =>
            own
              ? followOthers(session, { layoutId: layout.id, shapeId: shape.id })
              : goOwnWay(session, {
                  layoutId: layout.id,
                  shapeId: shape.id,
                  arrangement: arrangementIn(session.value, passageOf(session.value, passage.id), shape),
                })
          }
        >
          {own ? (
            <>
              <LinkOffIcon sx={{ fontSize: iconSize.small, mr: 0.5 }} />
              {wording.own}
            </>
          ) : (
            <LinkIcon sx={{ fontSize: iconSize.small }} />
          )}
        </Small>
      )}
    </Box>
  )
}

function Small({
  label,
  pressed,
  onClick,
  children,
}: {
  label: string
  pressed?: boolean
  onClick: () => void
  children: ReactNode
}) {
  return (
    <ButtonBase
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      onClick={onClick}
      sx={{
        font: 'inherit',
        color: pressed ? '#fff' : 'inherit',
        px: 1,
        borderRadius: '3px',
        minHeight: 20,
        ...(pressed && { bgcolor: 'rgba(255,255,255,0.16)' }),
        '&:hover': { color: '#fff' },
        '&:focus-visible': { outline: '2px solid #fff' },
      }}
    >
      {children}
    </ButtonBase>
  )
}
