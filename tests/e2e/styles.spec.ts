import type { PictureMark } from '@/core/model/pictureMark'
import { expect, test } from '@playwright/test'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { CueId, MarkId, RecordingId, TitleId } from '@/core/model/ids'
import { newMark } from '@/core/model/pictureMark'
import { NO_WORDS } from '@/core/model/words'
import { CAPTION_STYLES, TITLE_STYLES } from '@/core/words/textStyles'
import { steadyPicture, storeCopies, storedHighlight, toDemoBench, watchForErrors } from '../support/brimble'
import { ffmpeg, ssim } from '../support/ffmpeg'

const SHAPES = [
  { id: 'tall', width: 1080, height: 1920 },
  { id: 'portrait', width: 1080, height: 1350 },
  { id: 'square', width: 1080, height: 1080 },
]
const MARKS = ['handle', 'level', 'countdown', 'progress', 'endCard'] as const

/** Where the demo highlight's recording is cut: half a second in the middle of a line, with sound to draw. */
const IN = 10_900_000
const OUT = 11_400_000

/** Preview and file draw one list: a style is the same work in each shape, so each is looked at in one of them. */
function shapeOf(i: number): (typeof SHAPES)[number] {
  const shape = SHAPES[i % SHAPES.length]
  if (!shape) throw new Error('no shape')
  return shape
}

/**
 * The frame that is compared: the seventh of the file at 30 a second, which is the thirteenth of the recording at 60.
 */
const FRAME = 6

test('every style of words and every mark: what is seen is what is written, in one shape or another', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const errors = watchForErrors(page)
  await page.setViewportSize({ width: 1680, height: 1250 })
  await toDemoBench(page)
  await page.goto('/')
  const { passages } = await storedHighlight<{ passages: object[] }>(page, 'demo-last-gate')
  await storeCopies(
    page,
    'demo-last-gate',
    CAPTION_STYLES.map(({ id, style }, i) => {
      const title = TITLE_STYLES[i % TITLE_STYLES.length]
      const kind = MARKS[i % MARKS.length]
      if (!title || !kind) throw new Error('no style')
      const mark = newMark('mark' as MarkId, { kind })
      return {
        id: `style-${id}`,
        name: `Style ${id}`,
        passages: passages.map((p) => ({ ...p, inMicros: IN, outMicros: OUT })),
        shapes: [shapeOf(i)],
        words: {
          ...NO_WORDS,
          cues: [
            {
              id: 'c' as CueId,
              recordingId: 'demo-ridge-cup' as RecordingId,
              fromMicros: 10_600_000,
              toMicros: 12_000_000,
              text: 'And that is the last gate',
              words: [],
              speakerId: null,
            },
          ],
          captions: { ...NO_WORDS.captions, style },
          titles: [
            { id: 't' as TitleId, text: 'No lift, last gate', fromMicros: null, toMicros: null, style: title.style },
          ],
        },
        marks: [withWords(mark, i)],
        output: { frameRate: { num: 30, den: 1 }, quality: 'high', captions: 'picture' },
      }
    }),
  )
  const folder = mkdtempSync(join(tmpdir(), 'brimble-styles-'))
  const seen: { style: string; shape: string; png: string; width: number; height: number }[] = []
  for (const [i, { id }] of CAPTION_STYLES.entries()) {
    const shape = shapeOf(i).id
    await page.goto(`/highlight/style-${id}`)
    const result = page.getByRole('img', { name: `Result, ${shape}` })
    await expect(result).toBeVisible()
    await page.keyboard.press('h')
    for (let i = 0; i < 2 * FRAME; i++) await page.keyboard.press('ArrowRight')
    const png = await steadyPicture(result)
    const path = join(folder, `${id}-${shape}.png`)
    writeFileSync(path, png)
    seen.push({ style: id, shape, png: path, width: png.readUInt32BE(16), height: png.readUInt32BE(20) })
  }
  await page.goto('/outbox/sheet')
  for (const { style } of seen) await page.getByRole('checkbox', { name: `Choose Style ${style}`, exact: true }).check()
  await page.getByRole('button', { name: `Render all shapes of ${seen.length}` }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: `Render ${seen.length} files` })
    .click()
  await page.getByRole('link', { name: 'Files', exact: true }).click()
  await expect(page.locator('article[data-state=finished]')).toHaveCount(seen.length, { timeout: 200_000 })
  for (const { style, shape, png, width, height } of seen) {
    const row = page.getByRole('article', { name: `Style ${style}, ${shape}`, exact: true })
    const download = page.waitForEvent('download')
    await row.getByRole('button', { name: 'Save' }).click()
    const file = join(folder, `${style}-${shape}.mp4`)
    await (await download).saveAs(file)
    const written = join(folder, `${style}-${shape}-written.png`)
    ffmpeg('-i', file, '-vf', `select='eq(n,${FRAME})'`, '-frames:v', '1', written)
    expect
      .soft(ssim(png, ['-i', written], `[1:v]scale=${width}:${height}:flags=area[ref]`), `${style}, ${shape}`)
      .toBeGreaterThanOrEqual(0.98)
  }
  errors.expectNone()
})

function withWords(mark: PictureMark, i: number): PictureMark {
  if (mark.kind === 'handle') return { ...mark, text: 'heron ridge' }
  if (mark.kind !== 'endCard') return mark
  return { ...mark, text: 'More on Friday', lengthMicros: 100_000 + 300_000 * Number(i < MARKS.length) }
}
