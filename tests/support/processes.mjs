// Programs that tests and benchmarks start beside themselves: commands that tell in JSON lines, and a Redis of one's
// own.
import { spawn, spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/**
 * @typedef {{ event: string, at: number } & Record<string, unknown>} Line What a command told, and when, ms of this
 * process.
 */

/** @param {string} name */
export const tempDir = (name) => mkdtempSync(join(tmpdir(), `brimble-${name}-`))

/** @returns {Promise<number>} */
export async function freePort() {
  const server = createServer()
  await new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(null)))
  const address = server.address()
  await new Promise((resolve) => server.close(resolve))
  return typeof address === 'object' && address ? address.port : 0
}

/**
 * Starts a script that tells in JSON lines. `until`: resolves at the `times`th line of an event, rejects when the
 * script ends before; `ended`: with its exit code, null when a signal ended it.
 * @param {string} script @param {readonly string[]} args @param {Record<string, string>} env
 */
export function start(script, args, env = {}) {
  const child = spawn(process.execPath, [script, ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
  })
  /** @type {Line[]} */
  const lines = []
  /** @type {(() => void)[]} */
  const wakers = []
  let rest = ''
  let said = ''
  const wake = () => wakers.splice(0).forEach((waker) => waker())
  child.stderr.on('data', (text) => (said += text))
  child.stdout.on('data', (text) => {
    const parts = (rest + text).split('\n')
    rest = parts.pop() ?? ''
    for (const part of parts) lines.push({ at: performance.now(), ...JSON.parse(part) })
    wake()
  })
  let isOver = false
  /** @type {Promise<number | null>} */
  const ended = new Promise((resolve) => child.once('exit', (code) => ((isOver = true), wake(), resolve(code))))
  /** @param {string} event */
  const until = async (event, times = 1) => {
    for (;;) {
      const line = lines.filter((l) => l.event === event)[times - 1]
      if (line) return line
      if (isOver) throw new Error(`${script} ended before it told of ${event}\n${said}\n${JSON.stringify(lines)}`)
      await new Promise((resolve) => wakers.push(() => resolve(null)))
    }
  }
  return { child, lines, until, ended, said: () => said }
}

/**
 * A Redis of its own on loopback, which keeps what it was told on the disk; on demand behind a password and TLS, with
 * a certificate of its own.
 */
export class OwnRedis {
  /** @type {import('node:child_process').ChildProcess | null} */
  child = null
  dir = tempDir('redis')

  /** @param {number} port @param {string | null} password */
  constructor(port, password) {
    this.port = port
    this.password = password
    this.certificate = join(this.dir, 'own.crt')
    if (password)
      spawnSync(
        'openssl',
        [
          'req',
          '-x509',
          '-newkey',
          'rsa:2048',
          '-nodes',
          '-days',
          '2',
          '-subj',
          '/CN=localhost',
          '-addext',
          'subjectAltName=DNS:localhost',
          '-keyout',
          join(this.dir, 'own.key'),
          '-out',
          this.certificate,
        ],
        { stdio: 'ignore' },
      )
  }

  /** @param {string | null} password With one, it speaks TLS as well. */
  static async start(password = null) {
    const redis = new OwnRedis(await freePort(), password)
    await redis.start()
    return redis
  }

  get url() {
    return this.password
      ? `rediss://:${encodeURIComponent(this.password)}@localhost:${this.port}`
      : `redis://127.0.0.1:${this.port}`
  }

  get listening() {
    if (!this.password) return ['--port', String(this.port)]
    return [
      '--port',
      '0',
      '--tls-port',
      String(this.port),
      '--tls-cert-file',
      this.certificate,
      '--tls-key-file',
      join(this.dir, 'own.key'),
      '--tls-ca-cert-file',
      this.certificate,
      '--tls-auth-clients',
      'no',
      '--requirepass',
      this.password,
    ]
  }

  async start() {
    const child = spawn(
      'redis-server',
      [...this.listening, '--bind', '127.0.0.1', '::1', '--dir', this.dir, '--appendonly', 'yes', '--save', ''],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    )
    this.child = child
    await new Promise((resolve, reject) => {
      child.once('exit', (code) => reject(new Error(`redis-server ended with ${code}`)))
      child.stdout.on('data', (text) => String(text).includes('Ready to accept connections') && resolve(null))
    })
  }

  async stop() {
    const { child } = this
    if (!child) return
    this.child = null
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGTERM')
    await gone
  }
}
