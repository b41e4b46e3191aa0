import { describe, expect, it } from 'vitest'
import { picturesIn } from '../../../../tests/support/compositions'
import { sampleEdit } from '../../../../tests/support/edits'
import { editWithFeeds } from '../../../../tests/support/feeds'
import { SEED, seeded } from '../../../../tests/support/seeded'
import { compose } from '../../compose/compose'
import { edit as editSchema, type Edit } from '../../model/edit'
import { timeMapOf } from '../../time/timeMap'
import { notKeptInOtio, writeOtio } from './writeOtio'

const TALL = { id: 'tall', width: 1080, height: 1920 }

interface Rational {
  OTIO_SCHEMA: string
  rate: number
  value: number
}

/** As much of the public schema as says what is seen when; nothing of it is shared with the writer. */
interface Item {
  OTIO_SCHEMA: string
  source_range: { start_time: Rational; duration: Rational } | null
  in_offset?: Rational
  effects?: { OTIO_SCHEMA: string; time_scalar?: number }[]
  media_references?: Record<string, { target_url: string }>
}

interface Playing {
  url: string
  /** Seconds of the media. */
  at: number
}

/**
 * A timeline's tracks of a kind, each as a function of output seconds: an item lasts as long as its range; a
 * transition takes no time of its own.
 */
function tracksOf(text: string, kind: string) {
  const { tracks } = JSON.parse(text) as { tracks: { children: { kind: string; children: Item[] }[] } }
  return tracks.children
    .filter((t) => t.kind === kind)
    .map(({ children }) => ({
      seconds: children.reduce((sum, { source_range: r }) => sum + (r ? r.duration.value / r.duration.rate : 0), 0),
      items: children,
      at(seconds: number): Playing | null {
        let start = 0
        for (const { source_range: range, media_references, effects } of children) {
          if (!range) continue
          const length = range.duration.value / range.duration.rate
          const url = media_references?.DEFAULT_MEDIA?.target_url
          const scalar = effects?.find((e) => e.OTIO_SCHEMA.startsWith('LinearTimeWarp'))?.time_scalar ?? 1
          if (seconds < start + length)
            return url === undefined
              ? null
              : { url, at: range.start_time.value / range.start_time.rate + (seconds - start) * scalar }
          start += length
        }
        return null
      },
    }))
}

/** Every rational time anywhere in it. */
function timesIn(value: unknown): Rational[] {
  if (!value || typeof value !== 'object') return []
  if ('OTIO_SCHEMA' in value && value.OTIO_SCHEMA === 'RationalTime.1') return [value as Rational]
  return Object.values(value).flatMap(timesIn)
}

describe('a timeline', () => {
  it(`plays in each track what the composition shows in that panel, whatever the panel plays (seed ${SEED})`, () => {
    const random = seeded(SEED)
    let compared = 0
    for (let round = 0; round < 60; round++) {
      const edit = editWithFeeds(random)
      const map = timeMapOf(edit.highlight)
      const text = writeOtio(edit, TALL)
      const tracks = tracksOf(text, 'Video')
      for (const { seconds } of tracks) expect(Math.abs(seconds * 1e6 - map.lengthMicros)).toBeLessThan(9_000)
      for (let n = 0; n < 20; n++) {
        const t = random.integer(0, map.lengthMicros - 1)
        // Within a frame of a cut either side may be meant.
        if (
          map.passages.some((p) =>
            p.runs.some((r) => Math.min(Math.abs(t - r.startMicros), Math.abs(t - r.endMicros)) < 20_000),
          )
        )
          continue
        picturesIn(compose(edit, map, TALL, t) ?? { size: TALL, steps: [] }).forEach(({ step }, track) => {
          // Where a frame stands still the timeline has the recording go on, and says so.
          if (step.feed.micros <= 0 || step.feed.micros >= 60_000_000)
            return expect(notKeptInOtio(edit, TALL).join()).toContain('stands still')
          compared++
          expect(
            Math.abs((tracks[track]?.at(t / 1e6)?.at ?? NaN) * 1e6 - step.feed.micros),
            `round ${round}, ${t}, track ${track}`,
          ).toBeLessThan(34_000)
        })
      }
    }
    expect(compared).toBeGreaterThan(1000)
  })

  it('counts in whole frames at every rate: lengths at the timeline’s, starts at each recording’s own', () => {
    for (const frameRate of [
      { num: 60, den: 1 },
      { num: 30_000, den: 1001 },
      { num: 24_000, den: 1001 },
    ]) {
      const edit = sampleEdit()
      const [recording] = edit.recordings
      const [p] = edit.highlight.passages
      if (!recording || !p) throw new Error('nothing in it')
      const frame = (n: number) => Math.round((n * frameRate.den * 1e6) / frameRate.num)
      const of = (count: number) => ({
        ...p,
        id: `p${count}`,
        inMicros: frame(100),
        outMicros: frame(100 + count),
        join: { kind: 'dissolve', lengthMicros: 333_333, easing: 'even' },
      })
      const made = editSchema.parse({
        ...edit,
        recordings: [{ ...recording, video: { ...recording.video, frameRate } }],
        highlight: { ...edit.highlight, passages: [of(77), { ...of(91), speedPercent: 150 }, of(50)] },
      })
      for (const joinTiming of ['hold', 'overlap'] as const) {
        const { metadata: _, ...told } = JSON.parse(
          writeOtio({ ...made, highlight: { ...made.highlight, joinTiming } }, TALL),
        ) as { metadata: unknown }
        void _
        for (const { value, rate } of timesIn(told)) expect([rate, Number.isInteger(value)]).toEqual([rate, true])
        const [track] = tracksOf(JSON.stringify(told), 'Video')
        // By hand: 77 frames, 91 at one and a half times the speed, 50; overlapping, two joins of a third of a second
        // are shared.
        const whole = 77 + 91 / 1.5 + 50
        const shared = joinTiming === 'overlap' ? (2 * 0.333333 * frameRate.num) / frameRate.den : 0
        expect(Math.abs((track?.seconds ?? 0) * (frameRate.num / frameRate.den) - (whole - shared))).toBeLessThan(1.5)
        expect(track?.items[0]?.source_range?.start_time).toMatchObject({ value: 100 })
      }
    }
  })

  it('has the sound of a muted passage as a gap, of a heard panel as a track of its own, and says what it leaves out', () => {
    const edit = sampleEdit()
    const [p] = edit.highlight.passages
    if (!p) throw new Error('no passage')
    const heard = {
      panelId: 'top',
      plays: {
        kind: 'recording',
        recordingId: 'r',
        setupId: 's',
        clock: { kind: 'own', inMicros: 30_000_000, speedPercent: 50 },
        heard: true,
      },
    }
    const made: Edit = editSchema.parse({
      ...edit,
      highlight: {
        ...edit.highlight,
        passages: [{ ...p, sound: { gainDb: 0, muted: true, fadeInMicros: 0, fadeOutMicros: 0 }, feeds: [heard] }],
      },
    })
    const text = writeOtio(made, TALL)
    const [own, other] = tracksOf(text, 'Audio')
    expect(own?.items.map((i) => i.OTIO_SCHEMA)).toEqual(['Gap.1'])
    expect(other?.at(4)).toEqual({ url: 'ridge.mp4', at: 32 })
    expect(tracksOf(text, 'Video').map((t) => t.at(4)?.at)).toEqual([32, 16])
    expect((JSON.parse(text) as { metadata: { brimble: { notKept: string[] } } }).metadata.brimble.notKept).toEqual(
      notKeptInOtio(made, TALL),
    )
  })
})
