// Small pieces that the benchmarks share.
import { spawnSync } from 'node:child_process'
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

/** Seconds that all processors of this machine have been busy, since it was started. */
export const processorSeconds = () =>
  cpus().reduce((sum, { times: { user, nice, sys, irq } }) => sum + user + nice + sys + irq, 0) / 1000
