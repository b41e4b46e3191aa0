// Makes sure that what a command needs is there: packages, the build, and for tests Debian's Chromium, ffmpeg,
// Redis and PocketSphinx.
// It tells of that on stderr: what commands give out is their own.
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { has, root, run } from './commands.mjs'
import { placeAssets } from './placeAssets.mjs'

const at = (...parts) => join(root, ...parts)

/** Installs the packages when they are missing or the lock file has changed since. */
export async function ensureModules() {
  const installed = at('node_modules', '.package-lock.json')
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(at('package-lock.json')).mtimeMs) return
  process.stderr.write('Installing packages…\n')
  run('npm', ['ci', '--no-audit', '--no-fund'], {}, 2)
}

/** What the build is made of; a change in any of it means building again. */
const BUILT_FROM = ['src', 'public', 'next.config.ts', 'package-lock.json', 'tsconfig.json']

/** What the assets are made of; they take seconds, which every command would wait. */
const ASSETS_FROM = ['package-lock.json', 'kernel', 'scripts/placeAssets.mjs', 'scripts/compileKernel.mjs']

async function ensureAssets() {
  const stamp = at('public', 'kernel', '.placed')
  const now = fingerprint(ASSETS_FROM)
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return
  await placeAssets()
  writeFileSync(stamp, now)
}

function fingerprint(paths) {
  const hash = createHash('sha256')
  const add = (path) => {
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name))
    else if (!/\.test\.tsx?$/.test(path)) hash.update(path.slice(root.length)).update(readFileSync(path))
  }
  paths.map((p) => at(p)).forEach(add)
  return hash.digest('hex')
}

/** Builds the application unless the build there is was made from the same files. */
export async function ensureBuild() {
  await ensureAssets()
  const stamp = at('.next', 'brimble-build')
  const now = fingerprint(BUILT_FROM)
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now && existsSync(at('.next', 'BUILD_ID'))) return
  process.stderr.write('Building Brimble (about a minute)…\n')
  run('npx', ['next', 'build'], {}, 2)
  writeFileSync(stamp, now)
}

const CHROMIUM = '/usr/bin/chromium'

/** Installs the programs that tests need when this is root on Debian; otherwise says which are missing and ends. */
export async function ensurePrograms() {
  const missing = [
    ...(existsSync(CHROMIUM) ? [] : ['chromium']),
    ...(has('ffmpeg') && has('ffprobe') ? [] : ['ffmpeg']),
    ...(has('redis-server') ? [] : ['redis-server']),
    ...(has('pocketsphinx_continuous') || has('pocketsphinx') ? [] : ['pocketsphinx', 'pocketsphinx-en-us']),
  ]
  if (missing.length === 0) return
  if (process.getuid?.() !== 0 || !has('apt-get')) {
    process.stderr.write(
      `The tests need these Debian packages: ${missing.join(' ')}\nInstall them, for example with: sudo apt-get install ${missing.join(' ')}\n`,
    )
    process.exit(1)
  }
  process.stderr.write(`Installing ${missing.join(' and ')}…\n`)
  run('apt-get', ['update', '-qq'])
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { DEBIAN_FRONTEND: 'noninteractive' })
}
