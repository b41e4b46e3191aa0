/** Milliseconds in which a picture or a download that was given an object URL has surely begun to read it. */
const GRACE_MS = 60_000

/**
 * Frees an object URL that is shown no more. Not at once: a picture taken away while it begins to load would find its
 * file gone and report an error.
 */
export function letGoOfUrl(url: string): void {
  setTimeout(() => URL.revokeObjectURL(url), GRACE_MS)
}
