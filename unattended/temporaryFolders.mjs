// Folders for what only passes through: named after the process that made them, removed when it ends, swept by the
// next one when it could not.
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { hostname, tmpdir } from 'node:os'
import { join } from 'node:path'

const host = hostname().replace(/[^A-Za-z0-9]/g, '_')

/**
 * Folders of this process that have not been removed yet. On `globalThis`: the server's route handlers each have a
 * copy of this module.
 */
const open = (globalThis.brimbleTemporaryFolders ??= watchExit(new Set()))

function watchExit(folders) {
  process.on('exit', () => {
    for (const folder of folders) removeNow(folder)
  })
  return folders
}

function removeNow(folder) {
  rmSync(folder, { recursive: true, force: true, maxRetries: 3 })
}

/**
 * Makes an empty folder `<prefix>-<host>-<pid>-<random>` in `where`, after sweeping away those whose process is gone.
 * Returns its path.
 */
export function makeTemporaryFolder(prefix, where = tmpdir()) {
  sweepTemporaryFolders(prefix, where)
  const folder = mkdtempSync(join(where, `${prefix}-${host}-${process.pid}-`))
  open.add(folder)
  return folder
}

export function removeTemporaryFolder(folder) {
  open.delete(folder)
  removeNow(folder)
}

/**
 * Removes folders of this prefix that processes of this machine have left behind. A folder that cannot be removed
 * stays for the next sweep.
 */
export function sweepTemporaryFolders(prefix, where = tmpdir()) {
  const owner = new RegExp(`^${prefix.replace(/[^\w-]/g, '\\$&')}-${host}-(\\d+)-`)
  for (const name of readdirSync(where)) {
    const pid = Number(owner.exec(name)?.[1] ?? 0)
    // The same number and not one of ours: in a container every start gets the same.
    if (pid === 0 || open.has(join(where, name)) || (pid !== process.pid && isAlive(pid))) continue
    try {
      removeNow(join(where, name))
    } catch {
      // Somebody else's, or still in use.
    }
  }
}

/**
 * Whether there is a process of this number. It may be another one that was given it since; the folder is swept once
 * that is gone too.
 */
function isAlive(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}
