/** Something that went wrong, as it is kept: nothing in it names a recording, a file or a person. */
export interface Entry {
  id: string
  /** When, ISO 8601. */
  at: string
  /** What was being done, in a few words of ours. */
  where: string
  /** The kind of error: `TypeError`, `NotFoundError` … */
  name: string
  message: string
  stack: string
}

const MAX_MESSAGE = 300
const MAX_STACK_LINES = 12
const MAX_LINE = 200

/** An error as it is kept: without what stands in quotation marks, without names of files, without addresses. */
export function toEntry(where: string, error: unknown, at: Date): Entry {
  const { name, message, stack } = partsOf(error)
  return {
    id: crypto.randomUUID(),
    at: at.toISOString(),
    where,
    name,
    message: withoutNames(message).slice(0, MAX_MESSAGE),
    stack: stack
      .split('\n')
      .filter((line) => /^\s*at |@/.test(line))
      .slice(0, MAX_STACK_LINES)
      .map((line) => withoutOrigin(line.trim()).slice(0, MAX_LINE))
      .join('\n'),
  }
}

/** The kind of an error; of anything else that was thrown, its type. */
export function nameOf(error: unknown): string {
  return error instanceof Error || error instanceof DOMException ? error.name : typeof error
}

/** What an error says, for a sentence that tells of it. */
export function messageOf(error: unknown): string {
  return error instanceof Error || error instanceof DOMException ? error.message : String(error)
}

function partsOf(error: unknown) {
  return {
    name: nameOf(error),
    message: messageOf(error),
    stack: error instanceof Error ? (error.stack ?? '') : '',
  }
}

/** More of a message than this is not looked at. */
const MAX_LOOKED_AT = 1000

function withoutNames(text: string): string {
  return text
    .slice(0, MAX_LOOKED_AT)
    .replace(/[“"'‘«`][^“”"'’»`\n]*[”"'’»`]/g, '“…”')
    .replace(/\b(?:blob|https?|file|data):\S+/g, '(address)')
    .replace(
      /[^\n:;,“”]*\.(?:mp4|m4v|m4a|mov|mkv|webm|ts|mp3|wav|flac|ogg|vtt|srt|txt|csv|json|zip|png|jpe?g|gif|webp|svg|ttf|otf|woff2?)\b/gi,
      '(file)',
    )
    .replace(/(?:[A-Za-z]:)?(?:[\\/][^\\/\s]+){2,}/g, '(file)')
}

function withoutOrigin(line: string): string {
  return line.replace(/\b(?:blob:)?https?:\/\/[^/\s)]+/g, '').replace(/file:\/\/\S*\//g, '')
}
