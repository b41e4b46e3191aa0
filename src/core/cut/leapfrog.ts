import { DEFAULT_BACKDROP } from '../model/backdrop'
import type { LayoutId, PanelId, PassageId } from '../model/ids'
import type { Direction, Easing } from '../model/join'
import type { Arrangement, LayoutNode } from '../model/layout'
import { newPanel } from '../model/panel'
import type { Passage } from '../model/passage'
import type { Role } from '../model/region'
import { framesPerSecond } from '../time/frameRate'
import { MICROS_PER_SECOND, type Micros } from '../time/micros'
import { passageLength } from '../time/timeMap'
import type { Footage } from './passages'

/** Shots take turns in bands: each stays until the next one in its band pushes it out; the last fills the frame. */
export interface Leapfrog {
  bands: 2 | 3
  /** What every band shows. */
  role: Role
  /** Which way each band moves. */
  directions: readonly Direction[]
  lengthMicros: Micros
  easing: Easing
}

export const bandPanel = (band: number): PanelId => `leapfrog ${band}` as PanelId
const LAST_PANEL = 'leapfrog last' as PanelId

/** The first bands that are taken, from the top; the rest waits. */
export function bandsArrangement({ bands, role }: Pick<Leapfrog, 'bands' | 'role'>, taken: number): Arrangement {
  const nodes = Array.from({ length: bands }, (_, band): LayoutNode =>
    band < taken ? newPanel(bandPanel(band), role) : { kind: 'space' },
  )
  return {
    tree: {
      kind: 'stack',
      axis: 'column',
      gap: 0,
      children: nodes.map((node) => ({ extent: { kind: 'weight', weight: 1 }, node })),
    },
    insets: [],
    backdrop: DEFAULT_BACKDROP,
  }
}

export function lastArrangement({ role }: Pick<Leapfrog, 'role'>): Arrangement {
  return { tree: newPanel(LAST_PANEL, role), insets: [], backdrop: DEFAULT_BACKDROP }
}

/** How many layouts a leapfrog of so many bands takes: one for every number of bands that are taken, and the last. */
export const layoutsFor = ({ bands }: Pick<Leapfrog, 'bands'>): number => bands + 1

/**
 * Passages laid out as a leapfrog: their cut points and sound stay, their layouts, feeds and joins are new.
 * `layoutIds` are those of {@link bandsArrangement} for 1, 2 … bands taken, then of {@link lastArrangement}.
 */
export function leapfrog(passages: readonly Passage[], how: Leapfrog, layoutIds: readonly LayoutId[]): Passage[] {
  const { bands, directions, lengthMicros, easing } = how
  const last = passages.length - 1
  return passages.map((passage, k) => {
    const layoutId = layoutIds[k === last ? bands : Math.min(k, bands - 1)]
    if (!layoutId) throw new RangeError(`layoutIds: fewer than ${layoutsFor(how)}`)
    // The shots that were already there go on in their bands.
    const staying = k === last ? [] : passages.slice(Math.max(0, k - bands + 1), k)
    const feeds = staying.map((shot) => ({
      panelId: bandPanel(passages.indexOf(shot) % bands),
      plays: { kind: 'passage' as const, passageId: shot.id },
    }))
    const next = k + 1 === last ? 0 : (k + 1) % bands
    const join: Passage['join'] =
      k === last
        ? passage.join
        : { kind: 'push', direction: directions[next] ?? 'up', lengthMicros, easing, within: 'panel' }
    return { ...passage, layoutId, feeds, join }
  })
}

/** A shot that cannot stay until the next in its band arrives, with what would put it right. */
export interface ShortShot {
  passageId: PassageId
  /** Frames of its recording that are missing. */
  missingFrames: number
  /** Shifting what it shows by this much (recording time, backwards) is enough; null when there is no room for it. */
  slipMicros: Micros | null
  /** The fastest of the usual slower speeds at which it lasts long enough without moving a cut; null when none does. */
  speedPercent: number | null
}

const SLOWER = [90, 80, 70, 60, 50, 40, 30, 25] as const
/** Down to this a shot hardly looks slowed down. */
const LITTLE_SLOWER = 80

/** The shots that lack material to stay until they are pushed out. */
export function shortShots(
  passages: readonly Passage[],
  { bands, lengthMicros }: Pick<Leapfrog, 'bands' | 'lengthMicros'>,
  footageOf: (passage: Passage) => Footage,
): ShortShot[] {
  const last = passages.length - 1
  return passages.flatMap((passage, k) => {
    if (k === last) return []
    const gone = Math.min(k + bands, last)
    // As long as it is on screen in the output: its own time, that of those that come after, and half the join.
    const stays = passages.slice(k, gone).reduce((sum, p) => sum + passageLength(p), 0) + Math.ceil(lengthMicros / 2)
    const { durationMicros, video } = footageOf(passage)
    // A picture that runs by itself runs through strikes.
    const struck = passage.picture
      ? 0
      : passage.outMicros - passage.inMicros - (passageLength(passage) * passage.speedPercent) / 100
    const now = passage.picture ?? passage
    const neededAt = (percent: number) => Math.round((stays * percent) / 100 + struck)
    const missing = now.inMicros + neededAt(now.speedPercent) - durationMicros
    const missingFrames = Math.ceil((missing * framesPerSecond(video.frameRate)) / MICROS_PER_SECOND - 1e-6)
    if (missingFrames <= 0) return []
    const slower =
      struck === 0
        ? SLOWER.find((percent) => percent < now.speedPercent && now.inMicros + neededAt(percent) <= durationMicros)
        : undefined
    return [
      {
        passageId: passage.id,
        missingFrames,
        slipMicros: now.inMicros - video.firstFrameMicros >= missing ? -missing : null,
        speedPercent: slower ?? null,
      },
    ]
  })
}

/** A shot whose picture alone is shown from a little earlier on, or slower; cut points and sound stay as they are. */
export function withOwnPicture(passage: Passage, change: { slipMicros: Micros } | { speedPercent: number }): Passage {
  const now = passage.picture ?? { inMicros: passage.inMicros, speedPercent: passage.speedPercent }
  return {
    ...passage,
    picture:
      'slipMicros' in change
        ? { ...now, inMicros: Math.max(0, now.inMicros + change.slipMicros) }
        : { ...now, speedPercent: change.speedPercent },
  }
}

/**
 * What puts a short shot right with the least to be seen of it: a little slower, else a little earlier, else much
 * slower; null when nothing does.
 */
export function remedyOf({ slipMicros, speedPercent }: ShortShot): Parameters<typeof withOwnPicture>[1] | null {
  if (speedPercent !== null && (speedPercent >= LITTLE_SLOWER || slipMicros === null)) return { speedPercent }
  return slipMicros === null ? null : { slipMicros }
}
