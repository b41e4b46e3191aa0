import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { imageSize } from './imageHeader'

const dir = mkdtempSync(join(tmpdir(), 'brimble-header-'))

test.each(['png', 'jpg', 'gif', 'webp'])('the size of a %s file is told without decoding it', (ending) => {
  for (const [width, height] of [
    [2, 2],
    [640, 358],
    [1022, 34],
  ] as const) {
    const path = join(dir, `${width}.${ending}`)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      `color=c=teal:s=${width}x${height}:d=0.1:r=10`,
      '-frames:v',
      '1',
      path,
    ])
    expect(imageSize(new Uint8Array(readFileSync(path)))).toEqual({ width, height })
  }
})

test('what is no picture, or was cut off, has no size', () => {
  for (const bytes of [
    [],
    [1, 2, 3],
    [0xff, 0xd8, 0xff],
    [0xff, 0xd8, 0xff, 0xe0, 0, 0, 0, 0, 0, 0, 0, 0],
    [...'RIFF....WEBPVP8Z................'].map((c) => c.charCodeAt(0)),
  ])
    expect(imageSize(Uint8Array.from(bytes))).toBeNull()
})
