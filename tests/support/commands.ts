import { spawnSync } from 'node:child_process'
import { run } from './ffmpeg'

/** Runs a command to its end; of what it said the lines that are JSON objects, and all of it. */
export function runToEnd(
  script: string,
  args: readonly string[],
): { code: number | null; lines: ({ event: string } & Record<string, unknown>)[]; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [script, ...args], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  })
  const lines = stdout.split('\n').filter((line) => line.startsWith('{'))
  return { code: status, lines: lines.map((line) => JSON.parse(line) as { event: string }), said: stdout + stderr }
}

/** The fingerprints of every decoded frame and of the sound. */
export function framePrints(file: string): string {
  const told = run('ffmpeg', ['-v', 'error', '-i', file, '-map', '0', '-f', 'framemd5', '-']).toString()
  return told
    .split('\n')
    .filter((line) => !line.startsWith('#'))
    .join('\n')
}
