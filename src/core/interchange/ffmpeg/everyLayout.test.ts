import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, expect, it } from 'vitest'
import { sampleEdit } from '../../../../tests/support/edits'
import { arrangeFor, STARTING_LAYOUTS } from '../../layout/startingLayouts'
import { edit as editSchema, type Edit } from '../../model/edit'
import type { InsetId, PanelId } from '../../model/ids'
import type { Join } from '../../model/join'
import { ffmpegScript } from './ffmpegScript'

const SHAPE = { id: 'tall', width: 108, height: 192 }
const folder = mkdtempSync(join(tmpdir(), 'brimble-layouts-'))

beforeAll(() => {
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=320x180:r=30:d=8',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    join(folder, 'ridge.mp4'),
  ])
})

/** The sample's edit, small and short: so many passages of half a second each, from whole seconds on. */
function shortEdit(passages: number, change: (edit: Edit) => object = () => ({})): Edit {
  const edit = sampleEdit()
  const [p] = edit.highlight.passages
  const [r] = edit.recordings
  if (!p || !r) throw new Error('sample')
  const small = {
    ...edit,
    recordings: [
      {
        ...r,
        fileName: 'ridge.mp4',
        sound: null,
        durationMicros: 8_000_000,
        video: { ...r.video, width: 320, height: 180, frameRate: { num: 30, den: 1 } },
      },
    ],
    highlight: {
      ...edit.highlight,
      passages: Array.from({ length: passages }, (_, n) => ({
        ...p,
        id: `p${n}`,
        inMicros: (n + 1) * 1_000_000,
        outMicros: (n + 1) * 1_000_000 + 500_000,
      })),
    },
  }
  return editSchema.parse({ ...small, ...change(editSchema.parse(small)) })
}

/** The frames that a script makes, as rgb24, one after the other. */
function frames(edit: Edit, name: string): Buffer[] {
  writeFileSync(join(folder, `${name}.sh`), ffmpegScript(edit, SHAPE, { num: 30, den: 1 }))
  execFileSync('sh', [join(folder, `${name}.sh`), folder, join(folder, `${name}.mp4`)], { stdio: 'pipe' })
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', join(folder, `${name}.mp4`), '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'],
    { maxBuffer: 1e9 },
  )
  const size = SHAPE.width * SHAPE.height * 3
  return Array.from({ length: raw.length / size }, (_, n) => raw.subarray(n * size, (n + 1) * size))
}

const pixel = (frame: Buffer | undefined, x: number, y: number): number[] => [
  ...(frame?.subarray((y * SHAPE.width + x) * 3, (y * SHAPE.width + x) * 3 + 3) ?? []),
]

it('every starting layout comes to a script that runs and makes every frame', () => {
  for (const starting of STARTING_LAYOUTS) {
    const arrangement = arrangeFor(
      starting,
      ['face', 'game'],
      (role, n) => `${role} ${n}` as PanelId,
      () => 'inset' as InsetId,
    )
    const edit = shortEdit(1, (e) => ({ layouts: e.layouts.map((l) => ({ ...l, arrangement })) }))
    const made = frames(edit, starting.id)
    expect(made, starting.name).toHaveLength(15)
    // Something of the test card is there: not one colour throughout.
    const last = made.at(-1) as Buffer
    expect(
      new Set(
        Array.from({ length: 400 }, (_, i) =>
          pixel(last, (i * 7) % SHAPE.width, (i * 13) % SHAPE.height)
            .map((v) => v >> 5)
            .join(),
        ),
      ).size,
      starting.name,
    ).toBeGreaterThan(5)
  }
}, 60_000)

it('joins take their time about the cut: what was there before goes, what comes is there after', () => {
  const before = frames(shortEdit(1), 'first')
  const joins: Join[] = [
    { kind: 'dissolve', lengthMicros: 200_000, easing: 'even' },
    { kind: 'push', direction: 'left', lengthMicros: 200_000, easing: 'soft', within: 'canvas' },
    { kind: 'slide', direction: 'up', lengthMicros: 200_000, easing: 'late' },
    { kind: 'dip', colour: '#ff0000', lengthMicros: 200_000, easing: 'even' },
  ]
  const away = (a: Buffer | undefined, b: Buffer | undefined) => {
    if (!a || !b) return Infinity
    let sum = 0
    for (let i = 0; i < a.length; i++) sum += Math.abs((a[i] ?? 0) - (b[i] ?? 0))
    return sum / a.length
  }
  const straight = frames(shortEdit(2), 'straight')
  expect(straight).toHaveLength(30)
  for (const join of joins) {
    const made = frames(
      shortEdit(2, (e) => ({
        highlight: { ...e.highlight, passages: e.highlight.passages.map((p, n) => (n === 0 ? { ...p, join } : p)) },
      })),
      join.kind,
    )
    expect(made, join.kind).toHaveLength(30)
    expect(away(made[2], before[2]), join.kind).toBeLessThan(4)
    expect(away(made[28], straight[28]), join.kind).toBeLessThan(4)
    // In the middle it is neither.
    expect(Math.min(away(made[15], straight[15]), away(made[15], straight[14])), join.kind).toBeGreaterThan(4)
    if (join.kind === 'dip')
      expect((pixel(made[15], 50, 90)[0] ?? 0) - (pixel(made[15], 50, 90)[1] ?? 0)).toBeGreaterThan(120)
  }
}, 60_000)
