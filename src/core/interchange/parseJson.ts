/** No file of ours nests deeper; what does would exhaust the stack of whoever walks through it. */
const MAX_DEPTH = 100

/** Foreign text as JSON; *not-json* is also what nests deeper than anything of ours. Never throws. */
export function parseJson(
  text: string,
): { ok: true; raw: unknown } | { ok: false; reason: 'not-json'; detail: string } {
  if (nestsDeeper(text, MAX_DEPTH)) return { ok: false, reason: 'not-json', detail: '' }
  try {
    return { ok: true, raw: JSON.parse(text) }
  } catch {
    return { ok: false, reason: 'not-json', detail: '' }
  }
}

/** Whether objects and lists stand in one another more than `max` deep; brackets in strings do not count. */
function nestsDeeper(text: string, max: number): boolean {
  let depth = 0
  for (let at = 0; at < text.length; at++) {
    switch (text.charCodeAt(at)) {
      case 0x22: // "
        at = endOfString(text, at)
        break
      case 0x5b: // [
      case 0x7b: // {
        if (++depth > max) return true
        break
      case 0x5d: // ]
      case 0x7d: // }
        depth--
        break
    }
  }
  return false
}

/** Where the string that begins at `start` ends: its closing quote, or the end of the text. */
function endOfString(text: string, start: number): number {
  for (let at = start + 1; ; at++) {
    at = text.indexOf('"', at)
    if (at < 0) return text.length
    let backslashes = 0
    while (text.charCodeAt(at - 1 - backslashes) === 0x5c) backslashes++
    if (backslashes % 2 === 0) return at
  }
}
