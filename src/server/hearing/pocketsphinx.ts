import { execFile } from 'node:child_process'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import {
  makeTemporaryFolder,
  removeTemporaryFolder,
  sweepTemporaryFolders,
} from '../../../unattended/temporaryFolders.mjs'
import { readContinuous, readSingle, type HeardWord } from './sphinxOutput'

const run = promisify(execFile)

const FOLDER = 'brimble-hearing'
/** What PocketSphinx hears: mono, 16 bit. */
export const HEARD_RATE = 16_000
/** Of sound that is sent at one time. */
export const MAX_SECONDS = 60
/** Listening takes about a quarter of the sound's length, and loading the model a second; on a busy machine more. */
const PATIENCE_MS = 300_000
const MAX_OUTPUT = 4 << 20

interface Command {
  name: string
  args: (file: string) => string[]
  read: (text: string) => HeardWord[]
}

/** Debian's command, and that of newer releases. */
const COMMANDS: readonly Command[] = [
  {
    name: 'pocketsphinx_continuous',
    args: (file) => ['-infile', file, '-time', 'yes', '-logfn', '/dev/null'],
    read: readContinuous,
  },
  { name: 'pocketsphinx', args: (file) => ['-loglevel', 'FATAL', 'single', file], read: readSingle },
]

interface Held {
  command?: Promise<Command | null>
  isBusy?: boolean
}
/** There is one listener at a time. Kept on the process: route handlers are built apart from each other. */
const held = ((globalThis as { brimbleHearing?: Held }).brimbleHearing ??= {})

const isThere = (name: string) =>
  run('sh', ['-c', `command -v ${name}`]).then(
    () => true,
    () => false,
  )

/** The command on this machine that recognises speech; looked for once. */
async function commandHere(): Promise<Command | null> {
  for (const command of COMMANDS) if (await isThere(command.name)) return command
  return null
}

const command = () => (held.command ??= commandHere())

export const hasPocketsphinx = async (): Promise<boolean> => (await command()) !== null

export const sweepHearing = (): void => sweepTemporaryFolders(FOLDER)

/**
 * What PocketSphinx hears in samples of {@link HEARD_RATE}, seconds from their start; `busy` while it listens to
 * others. Throws when it fails, and when `signal` ends it.
 */
export async function hearSpeech(samples: Uint8Array, signal: AbortSignal): Promise<HeardWord[] | 'busy'> {
  const here = await command()
  if (!here) throw new Error('there is no PocketSphinx on this machine')
  if (held.isBusy) return 'busy'
  held.isBusy = true
  const folder = makeTemporaryFolder(FOLDER)
  try {
    const file = join(folder, 'speech.wav')
    await writeFile(file, Buffer.concat([waveHeader(samples.byteLength), samples]))
    const { stdout } = await run(here.name, here.args(file), { signal, timeout: PATIENCE_MS, maxBuffer: MAX_OUTPUT })
    return here.read(stdout)
  } finally {
    removeTemporaryFolder(folder)
    held.isBusy = false
  }
}

/** The header of a WAV file of mono 16-bit samples (RIFF, WAVE). */
function waveHeader(bytes: number): Buffer {
  const header = Buffer.alloc(44)
  header.write('RIFF', 0)
  header.writeUInt32LE(36 + bytes, 4)
  header.write('WAVEfmt ', 8)
  header.writeUInt32LE(16, 16)
  header.writeUInt16LE(1, 20)
  header.writeUInt16LE(1, 22)
  header.writeUInt32LE(HEARD_RATE, 24)
  header.writeUInt32LE(2 * HEARD_RATE, 28)
  header.writeUInt16LE(2, 32)
  header.writeUInt16LE(16, 34)
  header.write('data', 36)
  header.writeUInt32LE(bytes, 40)
  return header
}
