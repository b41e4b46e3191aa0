import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const tempDir = (name: string) => mkdtempSync(join(tmpdir(), `brimble-${name}-`))

/** What a command told, a JSON object a line. */
export type Line = { event: string } & Record<string, unknown>

export interface Started {
  child: ChildProcess
  lines: Line[]
  /** Resolves at the first line of this event, or of one of them. */
  until: (...events: string[]) => Promise<Line>
  /** Resolves with the exit code, null when a signal ended it. */
  ended: Promise<number | null>
}

/** Starts one of the commands that tell in JSON lines. */
export function start(script: string, args: readonly string[], env: Record<string, string> = {}): Started {
  const child = spawn(process.execPath, [script, ...args], { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...env } })
  const lines: Line[] = []
  const waiting: { events: readonly string[]; resolve: (line: Line) => void }[] = []
  let rest = ''
  let said = ''
  child.stderr.on('data', (text: Buffer) => (said += text.toString()))
  child.stdout.on('data', (text: Buffer) => {
    const parts = (rest + text.toString()).split('\n')
    rest = parts.pop() ?? ''
    for (const part of parts) {
      const line = JSON.parse(part) as Line
      lines.push(line)
      for (const w of waiting.filter(({ events }) => events.includes(line.event))) w.resolve(line)
    }
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  const until = (...events: string[]) => {
    const known = lines.find((line) => events.includes(line.event))
    if (known) return Promise.resolve(known)
    const told = new Promise<Line>((resolve) => waiting.push({ events, resolve }))
    return Promise.race([told, ended.then((code) => Promise.reject(new Error(`${script} ended with ${code} before it told of ${events.join(', ')}\n${said}\n${JSON.stringify(lines)}`)))])
  }
  return { child, lines, until, ended }
}

/** Runs a command to its end. */
export function runToEnd(script: string, args: readonly string[]): { code: number | null; lines: Line[]; said: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [script, ...args], { encoding: 'utf8', maxBuffer: 1 << 26 })
  return { code: status, lines: stdout.split('\n').filter((line) => line.startsWith('{')).map((line) => JSON.parse(line) as Line), said: stdout + stderr }
}

export async function freePort(): Promise<number> {
  const server = createServer()
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  await new Promise((resolve) => server.close(resolve))
  return port
}

/** A Redis of its own on loopback, which keeps what it was told on the disk. */
export class OwnRedis {
  private child: ChildProcess | null = null
  private readonly dir = tempDir('redis')

  private constructor(readonly port: number) {}

  static async start(): Promise<OwnRedis> {
    const redis = new OwnRedis(await freePort())
    await redis.start()
    return redis
  }

  get url(): string {
    return `redis://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    const child = spawn('redis-server', ['--port', String(this.port), '--bind', '127.0.0.1', '--dir', this.dir, '--appendonly', 'yes', '--save', ''], { stdio: ['ignore', 'pipe', 'inherit'] })
    this.child = child
    await new Promise<void>((resolve, reject) => {
      child.once('exit', (code) => reject(new Error(`redis-server ended with ${code}`)))
      child.stdout.on('data', (text: Buffer) => text.toString().includes('Ready to accept connections') && resolve())
    })
  }

  async stop(): Promise<void> {
    const { child } = this
    if (!child) return
    this.child = null
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGTERM')
    await gone
  }
}

/** The fingerprints of every decoded frame and of the sound. */
export function framePrints(file: string): string {
  return spawnSync('ffmpeg', ['-v', 'error', '-i', file, '-map', '0', '-f', 'framemd5', '-'], { encoding: 'utf8', maxBuffer: 1 << 28 })
    .stdout.split('\n')
    .filter((line) => !line.startsWith('#'))
    .join('\n')
}
