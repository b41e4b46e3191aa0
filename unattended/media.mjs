// Finds recordings, pictures, sounds and fonts by the names that highlights know them by: in a folder and those in it.
import { readdirSync, statSync } from 'node:fs'
import { basename, join } from 'node:path'
import { Unusable } from './command.mjs'

/** A folder with more files than this is not one of recordings. */
const MAX_FILES = 200_000

/** Every file below `dir`, by name in lower case. Links are followed to files, not to folders. */
export function indexMedia(dir) {
  if (!statSync(dir, { throwIfNoEntry: false })?.isDirectory()) throw new Unusable(`there is no folder ${dir}`)
  const byName = new Map()
  let count = 0
  for (const entry of readdirSync(dir, { recursive: true, withFileTypes: true })) {
    if (entry.isDirectory()) continue
    if (++count > MAX_FILES) throw new Unusable(`${dir} holds more than ${MAX_FILES} files`)
    const key = entry.name.toLowerCase()
    byName.set(key, [...(byName.get(key) ?? []), join(entry.parentPath, entry.name)])
  }
  return byName
}

/**
 * The paths of what a highlight needs, `[{ id, path }]`; of several files of a name the one of the right size.
 * `missing`: the first that is not there, or is another file of the same name.
 */
export function findNeeds(index, needs) {
  const found = []
  for (const { id, fileName, sizeBytes } of needs) {
    const paths = index.get(basename(fileName).toLowerCase()) ?? []
    const path = paths.find((p) => statSync(p, { throwIfNoEntry: false })?.size === sizeBytes)
    if (!path) return { ok: false, missing: fileName, differs: paths.length > 0 }
    found.push({ id, path })
  }
  return { ok: true, found }
}
