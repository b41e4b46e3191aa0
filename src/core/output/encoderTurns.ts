/**
 * A browser codes and decodes on so many threads at least, else on one fewer than there are cores (Chromium's pool of
 * workers).
 */
const MIN_THREADS = 3

/** Frames that a file's encoder works on before it is another's turn. */
export const TURN_FRAMES = 4

/**
 * How many encoders may work at a time on a machine with so many cores: were they on every thread, nothing would be
 * decoded meanwhile.
 */
export function mostEncoding(cores: number): number {
  return Math.max(MIN_THREADS, cores - 1) - 1
}

/**
 * Whether the file at `index` of `files` that are made together keeps its frame `n` for its next turn, where `most`
 * may be coded at a time.
 */
export function keepsForLater(index: number, files: number, n: number, most: number): boolean {
  return files > most && (index + Math.floor(n / TURN_FRAMES)) % files >= most
}
