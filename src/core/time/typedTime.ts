/**
 * Seconds out of a time as people type it: `90`, `90s`, `12:00` (minutes and seconds), `1:02:03.5`, and, where
 * `frameSeconds` (the length of a frame) is known, `1200f`. A comma is as good as a point. Null for anything else.
 */
export function parseTypedSeconds(text: string, frameSeconds: number | null): number | null {
  const typed = text.trim().replace(',', '.').toLowerCase()
  const frames = /^(\d+)\s*f(?:rames?)?$/.exec(typed)?.[1]
  if (frames !== undefined) return frameSeconds === null ? null : Number(frames) * frameSeconds
  const match = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:\.\d*)?|\.\d+)\s*(?:s(?:ec|econds?)?)?$/.exec(typed)
  if (!match) return null
  const [, hours = '0', minutes = '0', seconds = '0'] = match
  const clocked = typed.includes(':')
  if (clocked && (Number(seconds) >= 60 || (match[1] !== undefined && Number(minutes) >= 60))) return null
  return (Number(hours) * 60 + Number(minutes)) * 60 + Number(seconds)
}

/** A number as people type it, a comma as good as a point; null for anything else. */
export function parseTypedNumber(text: string): number | null {
  const typed = text.trim().replace(',', '.').replace('−', '-')
  return /^[+-]?(?:\d+\.?\d*|\.\d+)$/.test(typed) ? Number(typed) : null
}
