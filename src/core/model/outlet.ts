import { z } from 'zod'
import { outletId } from './ids'
import { micros, newRecord, recordBase, title } from './record'
import { frameRect } from './region'
import { shape, STANDARD_SHAPES, type Shape } from './shape'
import { tag } from './tag'

/** A part of the picture that an outlet lays its own things over; fractions of the shape. */
export const zone = z.object({ name: title, rect: frameRect })
export type Zone = z.infer<typeof zone>

/** Where a file is headed. */
export const outlet = recordBase.extend({
  id: outletId,
  name: title,
  tags: z.array(tag).max(20).default([]),
  shape,
  longestMicros: micros.positive().nullable().default(null),
  largestBytes: z.number().int().positive().nullable().default(null),
  zones: z.array(zone).max(20).default([]),
  /** How loud it plays things, LUFS, and the highest true peak that it takes, dBTP. */
  targetLufs: z.number().min(-40).max(-5).default(-14),
  mostPeakDb: z.number().min(-12).max(0).default(-1),
  /** The most characters of what is written with a post. */
  mostTitle: z.number().int().min(1).max(300).default(100),
  mostText: z.number().int().min(1).max(5000).default(2200),
})

export type Outlet = z.infer<typeof outlet>

const shapeNamed = (id: string) => STANDARD_SHAPES.find((s) => s.id === id) as Shape
const MINUTE = 60_000_000
const zoneAt = (name: string, x: number, y: number, width: number, height: number): Zone => ({
  name,
  rect: { x, y, width, height },
})

/**
 * Outlets to begin with, of nobody's but our own; their zones are starting points to be edited. `now`: ISO 8601, UTC.
 */
export function startingOutlets(now: string): Outlet[] {
  const base = { ...newRecord(now), tags: [] }
  const made = (
    id: string,
    name: string,
    shapeId: string,
    longestMicros: number | null,
    largestBytes: number | null,
    zones: Zone[],
  ): Outlet => ({
    ...base,
    id: id as Outlet['id'],
    name,
    shape: shapeNamed(shapeId),
    longestMicros,
    largestBytes,
    zones,
    targetLufs: -14,
    mostPeakDb: -1,
    mostTitle: 100,
    mostText: 2200,
  })
  return [
    made('outlet-tall-feed', 'Tall feed', 'tall', MINUTE, 250_000_000, [
      zoneAt('Top row', 0, 0, 1, 0.07),
      zoneAt('Buttons', 0.86, 0.44, 0.14, 0.36),
      zoneAt('Name and text', 0, 0.82, 0.86, 0.18),
    ]),
    made('outlet-story', 'Story', 'tall', MINUTE, 100_000_000, [
      zoneAt('Name', 0, 0, 1, 0.12),
      zoneAt('Reply', 0, 0.9, 1, 0.1),
    ]),
    made('outlet-portrait-feed', 'Portrait feed', 'portrait', 2 * MINUTE, 250_000_000, [
      zoneAt('Sound button', 0.88, 0.9, 0.12, 0.1),
    ]),
    made('outlet-square-feed', 'Square feed', 'square', 2 * MINUTE, 250_000_000, [
      zoneAt('Sound button', 0.88, 0.88, 0.12, 0.12),
    ]),
    made('outlet-wide-channel', 'Wide channel', 'wide', null, null, [zoneAt('Position', 0, 0.93, 1, 0.07)]),
  ]
}
