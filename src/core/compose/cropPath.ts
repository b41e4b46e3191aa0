import type { Point } from '../geometry/rect'
import type { PathKey } from '../model/passage'
import type { Micros } from '../time/micros'

/**
 * Where a crop path is at a recording time: eased from key to key, still before the first and after the last. Throws
 * RangeError without keys.
 */
export function pathAt(keys: readonly PathKey[], micros: Micros): Point {
  const [first] = keys
  if (!first) throw new RangeError('keys: a path has at least one')
  const next = keys.findIndex((k) => k.micros > micros)
  const from = keys[next < 0 ? keys.length - 1 : Math.max(0, next - 1)] ?? first
  const to = keys[next] ?? from
  if (micros <= from.micros || to === from || to.jump) return { x: from.x, y: from.y }
  const t = (micros - from.micros) / (to.micros - from.micros)
  const eased = t * t * (3 - 2 * t)
  return { x: from.x + (to.x - from.x) * eased, y: from.y + (to.y - from.y) * eased }
}

/** Keys nearer in time than this are the same key: a frame of the slowest usual rate. */
const SAME_MICROS = 45_000

/** A path that goes through `at` at a recording time: its key there is moved, or a new one put in. */
export function withKey(keys: readonly PathKey[], micros: Micros, at: Point): PathKey[] {
  const near = keys.find((k) => Math.abs(k.micros - micros) < SAME_MICROS)
  const key = near ? { ...near, ...at } : { micros, ...at, jump: false }
  return [...keys.filter((k) => k !== near), key].sort((a, b) => a.micros - b.micros)
}

/**
 * A path without one of its keys; when a shot's first key goes, the next one comes at once in its place. The last key
 * stays.
 */
export function withoutKey(keys: readonly PathKey[], micros: Micros): PathKey[] {
  const at = keys.findIndex((k) => k.micros === micros)
  if (at < 0 || keys.length === 1) return [...keys]
  return keys.flatMap((k, i) => {
    if (i === at) return []
    return i === at + 1 && keys[at]?.jump ? [{ ...k, micros: keys[at].micros, jump: true }] : [k]
  })
}
