import type { Render } from '../model/render'

/** What a pattern of file names can hold, in braces. */
export const NAME_PARTS = ['highlight', 'shape', 'outlet', 'date', 'version'] as const
type NamePart = (typeof NAME_PARTS)[number]

export const USUAL_PATTERN = '{highlight} {shape} {version}'

/** Longest name before its ending: file systems stop at 255 bytes. */
const MAX_BYTES = 200

/** What a pattern says that is not a part: told, so that a slip of the pen is seen. */
export function unknownParts(pattern: string): string[] {
  return [...pattern.matchAll(/\{([^}]*)\}/g)]
    .map((m) => m[1] ?? '')
    .filter((part) => !(NAME_PARTS as readonly string[]).includes(part))
}

/**
 * A file's name by a pattern, without its ending: never empty, and nothing that a file system takes for something
 * else. `version`: how many of its highlight and shape came before, and one.
 */
export function nameBy(
  pattern: string,
  render: Pick<Render, 'edit' | 'shape' | 'outletName'>,
  version: number,
  date: string,
): string {
  const parts: Record<NamePart, string> = {
    highlight: render.edit.highlight.name,
    shape: render.shape.id,
    outlet: render.outletName ?? '',
    date,
    version: String(version),
  }
  const filled = pattern.replace(/\{([^}]*)\}/g, (whole, part: string) => parts[part as NamePart] ?? whole)
  return fileSafe(filled)
}

/** A name as a file name: nothing that a file system takes for something else, and not too long. */
export function fileSafe(name: string): string {
  // Halves of a letter that was cut through are nothing that can be written.
  const plain = trimmed(
    name
      .replace(/\p{Surrogate}/gu, ' ')
      .normalize('NFC')
      .replace(/[\u0000-\u001f\u007f<>:"/\\|?*\u202a-\u202e\u2066-\u2069]/g, ' ')
      .replace(/\s+/g, ' '),
  )
  let [short, bytes] = ['', 0]
  for (const letter of plain) {
    bytes += new TextEncoder().encode(letter).length
    if (bytes > MAX_BYTES) break
    short += letter
  }
  short = trimmed(short)
  if (short === '') return 'untitled'
  return /^(con|prn|aux|nul|com\d|lpt\d)$/i.test(short) ? `${short} file` : short
}

const trimmed = (name: string) => name.replace(/^[. ]+|[. ]+$/g, '')

/** A name with an ending that is not among those `taken`, whatever their case: with a number where need be. */
export function freeFileName(stem: string, ending: string, taken: ReadonlySet<string>): string {
  const isTaken = (name: string) => taken.has(name.toLowerCase())
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${stem}.${ending}` : `${stem} (${n}).${ending}`
    if (!isTaken(name)) return name
  }
}
