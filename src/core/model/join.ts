import { z } from 'zod'

/** Where things move to. */
export const direction = z.enum(['up', 'down', 'left', 'right'])
export type Direction = z.infer<typeof direction>

/** How a movement is spread over its time. */
export const easing = z.enum(['even', 'soft', 'late'])
export type Easing = z.infer<typeof easing>

const lengthMicros = z.number().int().min(0).max(5_000_000)

/**
 * *Canvas*: the picture moves as a whole. *Panel*: each panel that comes to show something else moves by itself, the
 * others stay.
 */
export const joinWithin = z.enum(['canvas', 'panel'])
export type JoinWithin = z.infer<typeof joinWithin>

/** How a passage passes into the next. *Push* moves both, *slide* moves the next over this one. */
export const join = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('cut') }),
  z.object({ kind: z.literal('push'), direction, lengthMicros, easing, within: joinWithin.default('canvas') }),
  z.object({ kind: z.literal('slide'), direction, lengthMicros, easing }),
  z.object({ kind: z.literal('dissolve'), lengthMicros, easing }),
  z.object({ kind: z.literal('dip'), colour: z.string().regex(/^#[0-9a-f]{6}$/i), lengthMicros, easing }),
])

export type Join = z.infer<typeof join>
export type JoinKind = Join['kind']

export const JOIN_KINDS: readonly JoinKind[] = join.options.map((o) => o.shape.kind.value)

export const CUT: Join = { kind: 'cut' }

/** How long a join takes; a cut takes no time. */
export function joinLength(j: Join): number {
  return j.kind === 'cut' ? 0 : j.lengthMicros
}

/** `j` turned into another kind, keeping what both have. */
export function joinAs(j: Join, kind: JoinKind): Join {
  if (kind === 'cut') return CUT
  const common = { lengthMicros: joinLength(j) || 400_000, easing: j.kind === 'cut' ? ('soft' as const) : j.easing }
  const toward = j.kind === 'push' || j.kind === 'slide' ? j.direction : 'up'
  if (kind === 'push') return { kind, direction: toward, within: 'canvas', ...common }
  if (kind === 'slide') return { kind, direction: toward, ...common }
  return kind === 'dip' ? { kind, colour: '#000000', ...common } : { kind, ...common }
}

/** Progress 0..1 of a join after a share 0..1 of its time. */
export function ease(share: number, how: Easing): number {
  const x = Math.min(1, Math.max(0, share))
  switch (how) {
    case 'even':
      return x
    case 'soft':
      return x * x * (3 - 2 * x)
    case 'late':
      return x * x * x
  }
}
