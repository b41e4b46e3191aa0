const SMALL = [
  ...['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'],
  ...['thirteen', 'fourteen', 'fifteen', 'sixteen', 'seventeen', 'eighteen', 'nineteen'],
]
const TENS = ['', '', 'twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety']
const LARGE: readonly [number, string][] = [
  [1e9, 'billion'],
  [1e6, 'million'],
  [1000, 'thousand'],
  [100, 'hundred'],
]

/** A whole number from 0 to 999,999,999,999 as it is said in English; larger ones by their digits. */
export function numberInWords(n: number): string {
  if (!Number.isSafeInteger(n) || n < 0 || n >= 1e12) return [...String(n)].map((d) => SMALL[Number(d)] ?? '').join(' ')
  if (n < 20) return SMALL[n] ?? ''
  if (n < 100) return [TENS[Math.floor(n / 10)], n % 10 ? SMALL[n % 10] : ''].join(' ').trim()
  const [size, name] = LARGE.find(([s]) => n >= s) ?? [100, 'hundred']
  const rest = n % size
  return [numberInWords(Math.floor(n / size)), name, rest ? numberInWords(rest) : ''].join(' ').trim()
}

/** A year from 1000 to 2999 as it is said: two numbers, but for the first of a thousand. */
export function yearInWords(year: number): string {
  const [high, low] = [Math.floor(year / 100), year % 100]
  if (year % 1000 < 10) return numberInWords(year)
  if (low === 0) return `${numberInWords(high)} hundred`
  return `${numberInWords(high)} ${low < 10 ? `oh ${numberInWords(low)}` : numberInWords(low)}`
}

const ORDINALS: Readonly<Record<string, string>> = {
  one: 'first',
  two: 'second',
  three: 'third',
  five: 'fifth',
  eight: 'eighth',
  nine: 'ninth',
  twelve: 'twelfth',
}

/** A whole number as a place in an order: first, twenty second, hundredth. */
export function ordinalInWords(n: number): string {
  const said = numberInWords(n).split(' ')
  const last = said.pop() ?? ''
  const ordinal = ORDINALS[last] ?? (last.endsWith('y') ? `${last.slice(0, -1)}ieth` : `${last}th`)
  return [...said, ordinal].join(' ')
}
