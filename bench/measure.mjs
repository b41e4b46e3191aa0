// Small pieces that the benchmarks share.
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { root } from '../scripts/commands.mjs'

const MADE = join(root, 'tests', '.made')

/** The path of a generated recording; they are kept between runs and never committed. */
export function made(name) {
  mkdirSync(MADE, { recursive: true })
  return join(MADE, name)
}

export function ffmpeg(args) {
  const { status, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args])
  if (status !== 0) throw new Error(String(stderr))
}

export const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]

const STREAM = join(root, 'public/demo/ridge-cup-stream.mp4')

/** The machine's yardstick: seconds that one thread of ffmpeg takes to decode ten seconds of the demo stream. */
export function yardstick() {
  const from = performance.now()
  ffmpeg(['-threads', '1', '-t', '10', '-i', STREAM, '-f', 'null', '-'])
  return (performance.now() - from) / 1000
}

/** Keeps one core busy with a loop while `work` goes on. */
export async function besideABusyCore(work) {
  const loop = spawn(process.execPath, ['-e', 'for (;;) {}'], { stdio: 'ignore' })
  try {
    return await work()
  } finally {
    loop.kill('SIGKILL')
  }
}

/** Seconds that all processors of this machine have been busy, since it was started. */
export const processorSeconds = () =>
  cpus().reduce((sum, { times: { user, nice, sys, irq } }) => sum + user + nice + sys + irq, 0) / 1000
