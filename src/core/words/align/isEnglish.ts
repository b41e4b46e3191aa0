/** Words that stand in every English text, and not in its neighbours’: no “a”, “in”, “me” or “die”. */
const COMMON: ReadonlySet<string> = new Set([
  ...['the', 'and', 'to', 'of', 'is', 'it', 'you', 'that', 'this', 'we', 'they', 'what', 'with', 'for', 'my', 'your'],
  ...['are', 'was', 'were', 'be', 'have', 'has', 'had', 'do', 'does', 'did', 'not', "don't", "it's", "i'm", 'can'],
  ...['will', 'would', 'there', 'here', 'from', 'at', 'by', 'or', 'but', 'if', 'up', 'out', 'our', 'his', 'her', 'he'],
  ...['she', 'them', 'who', 'how', 'when', 'which', 'just', 'get', 'got', 'go', 'going', 'on', 'oh', 'yes', 'let'],
])
/** Of the words of an English text the dictionary knows nearly all; of others’ it knows the names. */
const MIN_KNOWN = 0.6
const MIN_COMMON = 0.12
/** In fewer words none of the common ones need be. */
const FEW = 8

/** Whether words, as they are said, are of an English text. `isKnown`: whether an English dictionary has a word. */
export function isEnglish(words: readonly string[], isKnown: (word: string) => boolean): boolean {
  const share = (counts: (word: string) => boolean) => words.filter(counts).length / words.length
  if (words.length === 0 || share(isKnown) < MIN_KNOWN) return false
  return words.length < FEW || share((word) => COMMON.has(word)) >= MIN_COMMON
}
