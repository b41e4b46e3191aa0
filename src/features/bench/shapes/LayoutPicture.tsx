'use client'

import Box from '@mui/material/Box'
import { useEffect, useRef } from 'react'
import { arrangementIn } from '@/core/compose/arrangementIn'
import type { PlacedPanel } from '@/core/compose/placeArrangement'
import { placePanels } from '@/core/compose/placePanels'
import { largestWithin } from '@/core/geometry/fit'
import type { Rect, Size } from '@/core/geometry/rect'
import { layoutOf, passageOf, recordingOf, type Edit } from '@/core/model/edit'
import type { Backdrop } from '@/core/model/backdrop'
import type { Layout } from '@/core/model/layout'
import { useBenchContext, useParts } from '../benchContext'

/** Pixels of the small picture for one that is shown. */
const SHARPNESS = 2

/**
 * What a layout makes of the picture that is on the screen, drawn small, in the highlight's first shape; `height` px
 * high.
 */
export function LayoutPicture({
  layout,
  height,
}: {
  layout: Pick<Layout, 'arrangement' | 'perShape'> & { adapts: boolean }
  height: number
}) {
  const { session, player } = useBenchContext()
  const { passage } = useParts()
  const canvas = useRef<HTMLCanvasElement>(null)
  const [shape] = session.value.highlight.shapes
  const size = shape && largestWithin({ width: 1.2 * height, height }, shape.width / shape.height)
  const { id } = passage
  useEffect(() => {
    const source = player.recordedPicture
    const context = canvas.current?.getContext('2d')
    if (!source || !context || !shape || !canvas.current) return
    const edit = withLayout(session.value, passageOf(session.value, id).layoutId, layout)
    const own = passageOf(edit, id)
    const { video } = recordingOf(edit, own.recordingId)
    context.setTransform(canvas.current.width / shape.width, 0, 0, canvas.current.height / shape.height, 0, 0)
    drawGround(context, arrangementIn(edit, own, shape).backdrop, { source, frame: video, canvas: shape })
    for (const placed of placePanels(edit, shape, own)) drawPanel(context, placed, { source, frame: video })
  }, [session, player, layout, shape, id])
  return (
    <Box
      component="canvas"
      ref={canvas}
      aria-hidden
      width={Math.round((size?.width ?? height) * SHARPNESS)}
      height={Math.round((size?.height ?? height) * SHARPNESS)}
      sx={{ width: size?.width, height: size?.height, flex: 'none', display: 'block' }}
    />
  )
}

function withLayout(edit: Edit, id: Layout['id'], layout: Pick<Layout, 'arrangement' | 'perShape' | 'adapts'>): Edit {
  const tried = { ...layoutOf(edit, id), ...layout }
  return { ...edit, layouts: edit.layouts.map((l) => (l.id === id ? tried : l)) }
}

interface Seen {
  source: HTMLCanvasElement
  /** Size of the recording that it shows, px. */
  frame: Size
}

function drawPart(context: CanvasRenderingContext2D, { source, frame }: Seen, crop: Rect, dest: Rect): void {
  const [sx, sy] = [source.width / frame.width, source.height / frame.height]
  context.drawImage(
    source,
    crop.x * sx,
    crop.y * sy,
    Math.max(1, crop.width * sx),
    Math.max(1, crop.height * sy),
    dest.x,
    dest.y,
    dest.width,
    dest.height,
  )
}

function drawGround(
  context: CanvasRenderingContext2D,
  backdrop: Backdrop,
  { canvas, ...seen }: Seen & { canvas: Size },
): void {
  const all = { x: 0, y: 0, width: canvas.width, height: canvas.height }
  if (backdrop.kind === 'colour') context.fillStyle = backdrop.colour
  else if (backdrop.kind === 'gradient') {
    const gradient = context.createLinearGradient(0, 0, 0, canvas.height)
    gradient.addColorStop(0, backdrop.from)
    gradient.addColorStop(1, backdrop.to)
    context.fillStyle = gradient
  } else {
    const cover = largestWithin(seen.frame, canvas.width / canvas.height)
    const crop = { x: (seen.frame.width - cover.width) / 2, y: (seen.frame.height - cover.height) / 2, ...cover }
    context.filter = backdrop.kind === 'blur' ? 'blur(6px)' : 'none'
    drawPart(context, seen, crop, all)
    context.filter = 'none'
    context.fillStyle = 'rgba(0, 0, 0, 0.3)'
  }
  context.fillRect(0, 0, canvas.width, canvas.height)
}

function drawPanel(
  context: CanvasRenderingContext2D,
  { panel, region, picture, source }: PlacedPanel,
  seen: Seen,
): void {
  if (!picture || !region) return
  const { x, y, width, height } = picture.dest
  const mask = (panel.outline ?? region.outline).mask
  context.save()
  context.beginPath()
  if (mask.kind === 'ellipse') context.ellipse(x + width / 2, y + height / 2, width / 2, height / 2, 0, 0, 2 * Math.PI)
  else context.roundRect(x, y, width, height, mask.kind === 'rounded' ? mask.radius * Math.min(width, height) : 0)
  context.clip()
  if (source.feed) {
    // Another recording plays there: its picture is not on the screen.
    context.fillStyle = '#5d6660'
    context.fillRect(x, y, width, height)
  } else {
    const lying = panel.turn % 2 === 1
    context.translate(x + width / 2, y + height / 2)
    context.rotate((panel.turn * Math.PI) / 2)
    context.scale(panel.flip ? -1 : 1, 1)
    const [w, h] = lying ? [height, width] : [width, height]
    drawPart(context, seen, picture.crop, { x: -w / 2, y: -h / 2, width: w, height: h })
  }
  context.restore()
}
