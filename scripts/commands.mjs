// Small pieces that the scripts share: running commands, finding a free port, opening a browser.
import { spawn, spawnSync } from 'node:child_process'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/**
 * Runs a command in the project's folder with its output shown; ends this process with its code when it fails.
 * `shownOn`: the stream, 1 or 2.
 */
export function run(command, args, env = {}, shownOn = 1) {
  const { status, error } = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', shownOn, 2],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  })
  if (error) throw error
  if (status !== 0) process.exit(status ?? 1)
}

/**
 * Runs commands at the same time, each one's output shown when it ends; ends this process with the code of the first
 * that fails.
 */
export async function runTogether(...commands) {
  await Promise.all(
    commands.map(
      ([command, args]) =>
        new Promise((resolve, reject) => {
          const child = spawn(command, args, {
            cwd: root,
            stdio: ['ignore', 'pipe', 'pipe'],
            env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
          })
          const said = []
          for (const stream of [child.stdout, child.stderr]) stream.on('data', (data) => said.push(data))
          child.on('error', reject)
          child.on('close', (code) => {
            process.stdout.write(Buffer.concat(said))
            if (code !== 0) process.exit(code ?? 1)
            resolve()
          })
        }),
    ),
  )
}

/** Whether a program is on the PATH. */
export function has(program) {
  return spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0
}

/** `wanted` if nothing listens there, else the next port that is free. */
export async function freePort(wanted) {
  for (let port = wanted; port < wanted + 50; port++) {
    const free = await new Promise((resolve) => {
      const probe = createServer()
        .once('error', () => resolve(false))
        .once('listening', () => probe.close(() => resolve(true)))
      probe.listen(port, 'localhost')
    })
    if (free) return port
  }
  throw new Error(`no free port from ${wanted} on`)
}

/** Opens an address in the desktop's browser, where there is a desktop; says nothing where there is none. */
export function openInDesktopBrowser(address) {
  const desktop = process.platform !== 'linux' || process.env.DISPLAY || process.env.WAYLAND_DISPLAY
  if (!desktop || process.env.CI) return
  const opener = { darwin: 'open', win32: 'explorer' }[process.platform] ?? 'xdg-open'
  spawn(opener, [address], { stdio: 'ignore', detached: true })
    .on('error', () => {})
    .unref()
}
