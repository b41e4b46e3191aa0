// Gives whole files their names: never over another file, and never a part of one.
import { closeSync, existsSync, fsyncSync, linkSync, openSync, renameSync, unlinkSync } from 'node:fs'
import { basename, extname, join } from 'node:path'

/** What is on its way is on the disk before it has its name. */
function settle(path) {
  const file = openSync(path, 'r+')
  fsyncSync(file)
  closeSync(file)
}

/**
 * Moves a file into `out` under `name` unless something of that name is there already; whether it did. Both lie on
 * one file system.
 */
export function placeAs(from, out, name) {
  if (name !== basename(name) || name === '' || name === '.' || name === '..')
    throw new RangeError(`${JSON.stringify(name)} is no file name`)
  const to = join(out, name)
  settle(from)
  try {
    linkSync(from, to)
  } catch (error) {
    if (error.code === 'EEXIST') return false
    // File systems without links: the name is taken first, then the file put there.
    if (error.code !== 'EPERM' && error.code !== 'ENOTSUP') throw error
    try {
      closeSync(openSync(to, 'wx'))
    } catch (taken) {
      if (taken.code === 'EEXIST') return false
      throw taken
    }
    renameSync(from, to)
    return true
  }
  unlinkSync(from)
  return true
}

/**
 * Moves files that belong together, `[{ from, name }]`, into a folder under names with one stem: the first's, with a
 * number where need be. Their names.
 */
export function placeTogether(files, out) {
  const stem = basename(files[0].name, extname(files[0].name))
  for (let n = 1; ; n++) {
    const names = files.map(({ name }) => (n === 1 ? name : `${stem} (${n})${extname(name)}`))
    if (names.slice(1).some((name) => existsSync(join(out, name))) || !placeAs(files[0].from, out, names[0])) continue
    files.slice(1).forEach(({ from }, i) => placeAs(from, out, names[i + 1]))
    return names
  }
}
