import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { arrangeFor, STARTING_LAYOUTS } from '../layout/startingLayouts'
import type { Edit } from '../model/edit'
import type { InsetId, PanelId, RecordingId, SetupId } from '../model/ids'
import type { Layout } from '../model/layout'
import type { FeedClock } from '../model/passage'
import { STANDARD_SHAPES, type Shape } from '../model/shape'
import { timeMapOf } from '../time/timeMap'
import { soundPlan } from '../sound/soundPlan'
import { compose } from './compose'
import type { PictureStep, Step } from './composition'

const shapeNamed = (id: string) => STANDARD_SHAPES.find((s) => s.id === id) as Shape

function laidOut(id: string): Edit {
  const edit = sampleEdit()
  const starting = STARTING_LAYOUTS.find((s) => s.id === id)
  if (!starting) throw new Error(`no layout ${id}`)
  ;(edit.layouts[0] as Layout).arrangement = arrangeFor(
    starting,
    ['face', 'game'],
    (role, n) => `${role}${n}` as PanelId,
    () => 'i' as InsetId,
  )
  return edit
}

const stepsOf = (edit: Edit, shape: Shape, t = 0): Step[] =>
  compose(edit, timeMapOf(edit.highlight), shape, t)?.steps ?? []
const pictures = (steps: readonly Step[]) => steps.filter((s): s is PictureStep => s.kind === 'picture')

describe('what lies behind', () => {
  it('a blurred copy fills the canvas with its proportion, from the same frame as the panels', () => {
    for (const shape of STANDARD_SHAPES) {
      const [blur, tint, picture] = stepsOf(laidOut('afloat'), shape)
      if (blur?.kind !== 'blur' || picture?.kind !== 'picture') throw new Error('no blur')
      expect(blur.crop.width / blur.crop.height).toBeCloseTo(shape.width / shape.height, 9)
      expect(blur.feed).toEqual(picture.feed)
      expect(tint).toEqual({ kind: 'tint', colour: '#000000', opacity: 0.25 })
      expect(blur.radius).toBeCloseTo(0.6 * 0.08 * Math.min(shape.width, shape.height), 9)
    }
  })

  it('mirrored copies meet the picture at its edges and fill the canvas', () => {
    const tall = shapeNamed('tall')
    const steps = stepsOf(laidOut('mirror-lake'), tall)
    const all = pictures(steps)
    const shown = all.at(-1)
    if (!shown) throw new Error('no picture')
    const [above, below] = [
      all.find((p) => p.dest.y + p.dest.height === shown.dest.y),
      all.find((p) => p.dest.y === shown.dest.y + shown.dest.height),
    ]
    expect([above?.orientation, below?.orientation]).toEqual([
      { turn: 2, flip: true },
      { turn: 2, flip: true },
    ])
    expect(Math.min(...all.map((p) => p.dest.y))).toBeLessThanOrEqual(0)
    expect(Math.max(...all.map((p) => p.dest.y + p.dest.height))).toBeGreaterThanOrEqual(1920)
    expect(new Set(all.map((p) => JSON.stringify(p.crop))).size).toBe(1)
  })

  it('turned pictures keep their proportion lying down', () => {
    const [turned] = pictures(stepsOf(laidOut('quarter-turn'), shapeNamed('tall')))
    expect(turned).toMatchObject({
      dest: { x: 0, y: 0, width: 1080, height: 1920 },
      orientation: { turn: 1 },
      crop: { width: 1920, height: 1080 },
    })
    expect(pictures(stepsOf(laidOut('quarter-turn'), shapeNamed('wide')))[0]?.orientation.turn).toBe(0)
  })
})

describe('what a panel plays instead', () => {
  function fed(clock: FeedClock, heard = false): Edit {
    const edit = sampleEdit()
    const [passage] = edit.highlight.passages
    const [recording] = edit.recordings
    if (!passage || !recording) throw new Error('no passage')
    edit.recordings.push({ ...recording, id: 'second' as RecordingId, durationMicros: 40_000_000 })
    passage.strikes = [{ fromMicros: 14_000_000, toMicros: 16_000_000 }]
    passage.speedPercent = 200
    passage.feeds = [
      {
        panelId: 'top' as PanelId,
        plays: { kind: 'recording', recordingId: 'second' as RecordingId, setupId: 's' as SetupId, clock, heard },
      },
    ]
    return edit
  }
  const feedsAt = (edit: Edit, t: number) =>
    pictures(stepsOf(edit, shapeNamed('tall'), t)).map((p) => [p.feed.recordingId, p.feed.micros])

  it('keeps in step with the passage through strikes and speed', () => {
    const edit = fed({ kind: 'together', offsetMicros: -5_000_000 })
    expect(feedsAt(edit, 500_000)).toEqual([
      ['second', 8_000_000],
      ['r', 13_000_000],
    ])
    expect(feedsAt(edit, 2_000_000)).toEqual([
      ['second', 13_000_000],
      ['r', 18_000_000],
    ])
  })

  it('or runs by itself from the passage’s start, and stands still at its recording’s end', () => {
    const edit = fed({ kind: 'own', inMicros: 39_000_000, speedPercent: 50 })
    expect(feedsAt(edit, 500_000)[0]).toEqual(['second', 39_250_000])
    expect(feedsAt(edit, 3_900_000)[0]).toEqual(['second', 40_000_000])
  })

  it('is silent unless it is asked to be heard, and then sounds as it runs', () => {
    const plan = (edit: Edit) => soundPlan(edit, timeMapOf(edit.highlight)).filter((s) => s.source.id === 'second')
    expect(plan(fed({ kind: 'together', offsetMicros: -5_000_000 }))).toEqual([])
    expect(
      plan(fed({ kind: 'together', offsetMicros: -5_000_000 }, true)).map((s) => [
        s.fromMicros,
        s.speedPercent,
        s.startMicros,
      ]),
    ).toEqual([
      [7_000_000, 200, 0],
      [11_000_000, 200, 1_000_000],
    ])
    expect(
      plan(fed({ kind: 'own', inMicros: 1_000_000, speedPercent: 100 }, true)).map((s) => [
        s.fromMicros,
        s.startMicros,
        s.endMicros,
      ]),
    ).toEqual([[1_000_000, 0, 4_000_000]])
  })
})
