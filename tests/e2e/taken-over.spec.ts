import { expect, test } from '@playwright/test'
import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { writeBundle } from '@/core/interchange/bundle'
import { newPanel } from '@/core/model/panel'
import { edit as editSchema, type Edit } from '@/core/model/edit'
import type { PanelId } from '@/core/model/ids'
import { sampleEdit } from '../support/edits'
import { made } from '../support/makeRecordings'
import { runToEnd } from '../support/commands'
import { ffmpeg, run } from '../support/ffmpeg'
import { tempDir } from '../support/processes.mjs'

const RATE = 30
/** The passage: it begins and ends between key frames, which lie every 45 frames. */
const FIRST = 12
const LAST = 260

/**
 * The whole of a recording, wide, from frame `FIRST` up to, not including, `LAST`; struck out from frame 100 up to
 * 131.
 */
function wideEdit(recording: string): Edit {
  const { highlight, setups, layouts, recordings } = sampleEdit()
  const at = (frame: number) => Math.round((frame * 1e6) / RATE)
  return editSchema.parse({
    highlight: {
      ...highlight,
      name: 'Wide',
      shapes: [{ id: 'wide', width: 1280, height: 720 }],
      output: { ...highlight.output, quality: 'high' as const },
      passages: highlight.passages.map((p) => ({
        ...p,
        inMicros: at(FIRST),
        outMicros: at(LAST),
        strikes: [{ fromMicros: at(100), toMicros: at(131) }],
      })),
    },
    setups: setups.map((s) => ({
      ...s,
      regions: [{ id: 'g', role: 'game', name: 'Game', bounds: { x: 0, y: 0, width: 1, height: 1 } }],
    })),
    layouts: layouts.map((l) => ({
      ...l,
      arrangement: { ...l.arrangement, tree: newPanel('one' as PanelId, 'game') },
    })),
    recordings: recordings.map((r) => ({
      ...r,
      fileName: 'flight.mp4',
      sizeBytes: statSync(recording).size,
      durationMicros: 14_000_000,
      video: { ...r.video, width: 1280, height: 720, frameRate: { num: RATE, den: 1 } },
    })),
  })
}

/** The fingerprint of each decoded picture. */
const prints = (file: string) =>
  run('ffmpeg', ['-v', 'error', '-i', file, '-map', '0:v', '-f', 'framemd5', '-'])
    .toString()
    .split('\n')
    .filter((line) => line && !line.startsWith('#'))
    .map((line) => line.split(',').at(-1)?.trim())

test('whole frames with nothing over them go into a wide file as they were coded; only what lies beside key frames is coded again', () => {
  const dir = tempDir('taken-over')
  const recording = join(dir, 'flight.mp4')
  // Frames that are decoded before those shown ahead of them, as recorders and editors make them.
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=1280x720:r=${RATE}:d=14,noise=alls=6:allf=t:all_seed=7`,
    '-i',
    made('numbered.mp4'),
    '-map',
    '0:v',
    '-map',
    '1:a',
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-bf',
    '3',
    '-g',
    '45',
    '-keyint_min',
    '45',
    '-sc_threshold',
    '0',
    '-b:v',
    '4M',
    '-pix_fmt',
    'yuv420p',
    '-color_primaries',
    'bt709',
    '-color_trc',
    'bt709',
    '-colorspace',
    'bt709',
    '-color_range',
    'tv',
    '-c:a',
    'copy',
    recording,
  )
  const edit = join(dir, 'Wide.brimble.json')
  writeFileSync(edit, writeBundle([wideEdit(recording)], new Map()))
  const { code, lines, said } = runToEnd('unattended/render.mjs', [edit, '--media', dir, '--out', dir, '--json'])
  expect(code, said).toBe(0)
  const finished = lines.find((l) => l.event === 'finished') as unknown as {
    frames: number
    framesTakenOver: number
    names: string[]
  }
  const file = join(dir, finished.names[0] as string)
  const shown = Array.from({ length: LAST - FIRST }, (_, i) => FIRST + i).filter((n) => n < 100 || n >= 131)
  expect(finished.frames).toBe(shown.length)
  // Key frames at 45, 90, 135, 180, 225: taken over are 45 to 99, and 135 to the end but for what leans on later
  // frames.
  expect(finished.framesTakenOver).toBeGreaterThanOrEqual(100 - 45 - 4 + (LAST - 135 - 4))
  const [own, recorded] = [prints(file), prints(recording)]
  expect(own.length).toBe(shown.length)
  const alike = shown.filter((n, i) => own[i] === recorded[n])
  expect(alike.length).toBeGreaterThanOrEqual(finished.framesTakenOver)
  expect(alike).toContain(45)
  expect(alike).toContain(200)
  expect(alike).not.toContain(44)
  // All of it shows the right frame, and is tagged as every file is.
  const select = `select='between(n,${FIRST},99)+between(n,131,${LAST - 1})',setpts=N/${RATE}/TB`
  run('ffmpeg', [
    '-v',
    'error',
    '-i',
    file,
    '-i',
    recording,
    '-lavfi',
    `[0:v]setpts=N/${RATE}/TB[a];[1:v]${select}[b];[a][b]ssim=stats_file=${join(dir, 'ssim.txt')}`,
    '-f',
    'null',
    '-',
  ])
  const ssim = [...readFileSync(join(dir, 'ssim.txt'), 'utf8').matchAll(/All:([\d.]+)/g)].map((m) => Number(m[1]))
  expect(ssim.length).toBe(shown.length)
  expect(Math.min(...ssim)).toBeGreaterThan(0.9)
  const probed = run('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v',
    '-show_entries',
    'stream=nb_frames,color_space,color_range,color_transfer,color_primaries,r_frame_rate,start_time',
    '-of',
    'default=nw=1',
    file,
  ]).toString()
  for (const line of [
    'color_range=tv',
    'color_space=bt709',
    'color_transfer=bt709',
    'color_primaries=bt709',
    `r_frame_rate=${RATE}/1`,
    `nb_frames=${shown.length}`,
  ])
    expect(probed).toContain(line)
})
