/**
 * English letters to sounds by rules, after the rule sets of Elovitz et al., “Letter-to-sound rules for automatic
 * translation of English text to phonetics” (1976), shortened: for names and made-up words that no dictionary has.
 * Sounds are those of the CMU Pronouncing Dictionary, without stress.
 */
const RULES: readonly [letters: RegExp, sounds: string][] = [
  [/^[^a-z]+/, ''],
  [/^tion/, 'SH AH N'],
  [/^sion/, 'ZH AH N'],
  [/^ture\b/, 'CH ER'],
  [/^ough\b/, 'OW'],
  [/^augh/, 'AO'],
  [/^eigh/, 'EY'],
  [/^igh/, 'AY'],
  [/^tch/, 'CH'],
  [/^sch/, 'SH'],
  [/^dge/, 'JH'],
  [/^qu/, 'K W'],
  [/^ch/, 'CH'],
  [/^ck/, 'K'],
  [/^gh/, 'G'],
  [/^kn/, 'N'],
  [/^wr/, 'R'],
  [/^wh/, 'W'],
  [/^ph/, 'F'],
  [/^sh/, 'SH'],
  [/^th/, 'TH'],
  [/^ng\b/, 'NG'],
  [/^nk/, 'NG K'],
  [/^(bb|b)/, 'B'],
  [/^c(?=[eiy])/, 'S'],
  [/^(cc|c)/, 'K'],
  [/^(dd|d)/, 'D'],
  [/^(ff|f)/, 'F'],
  [/^g(?=[eiy])/, 'JH'],
  [/^(gg|g)/, 'G'],
  [/^h/, 'HH'],
  [/^j/, 'JH'],
  [/^k/, 'K'],
  [/^(ll|l)/, 'L'],
  [/^(mm|m)/, 'M'],
  [/^(nn|n)/, 'N'],
  [/^(pp|p)/, 'P'],
  [/^(rr|r)/, 'R'],
  [/^ss/, 'S'],
  [/^s/, 'S'],
  [/^(tt|t)/, 'T'],
  [/^v/, 'V'],
  [/^w/, 'W'],
  [/^x/, 'K S'],
  [/^(zz|z)/, 'Z'],
  [/^y(?=[aeiou])/, 'Y'],
  [/^e\b/, ''],
  [/^es\b/, 'Z'],
  [/^ed\b/, 'D'],
  [/^ee|^ea|^ie/, 'IY'],
  [/^eau/, 'OW'],
  [/^eu|^ew/, 'Y UW'],
  [/^er|^ir|^ur/, 'ER'],
  [/^ei|^ey/, 'EY'],
  [/^ar/, 'AA R'],
  [/^au|^aw/, 'AO'],
  [/^ai|^ay/, 'EY'],
  [/^a(?=[bcdfghjklmnpqrstvwz]e\b)/, 'EY'],
  [/^a\b/, 'AH'],
  [/^a/, 'AE'],
  [/^e/, 'EH'],
  [/^i(?=[bcdfghjklmnpqrstvwz]e\b)/, 'AY'],
  [/^i\b/, 'IY'],
  [/^i/, 'IH'],
  [/^oo/, 'UW'],
  [/^oi|^oy/, 'OY'],
  [/^ou|^ow/, 'AW'],
  [/^or/, 'AO R'],
  [/^oa/, 'OW'],
  [/^o(?=[bcdfghjklmnpqrstvwz]e\b)/, 'OW'],
  [/^o\b/, 'OW'],
  [/^o/, 'AA'],
  [/^u(?=[bcdfghjklmnpqrstvwz]e\b)/, 'UW'],
  [/^u/, 'AH'],
  [/^y\b/, 'IY'],
  [/^y/, 'IH'],
]

/** How the sounds of a letter’s name are said, for what is spelled. */
const LETTER_NAMES: Readonly<Record<string, string>> = {
  ...{ a: 'EY', b: 'B IY', c: 'S IY', d: 'D IY', e: 'IY', f: 'EH F', g: 'JH IY', h: 'EY CH', i: 'AY', j: 'JH EY' },
  ...{ k: 'K EY', l: 'EH L', m: 'EH M', n: 'EH N', o: 'OW', p: 'P IY', q: 'K Y UW', r: 'AA R', s: 'EH S', t: 'T IY' },
  ...{ u: 'Y UW', v: 'V IY', w: 'D AH B AH L Y UW', x: 'EH K S', y: 'W AY', z: 'Z IY' },
}

/** The sounds of a word in small English letters. Without a vowel it is spelled. */
export function soundsOf(word: string): string {
  if (!/[aeiouy]/.test(word)) return [...word].flatMap((letter) => LETTER_NAMES[letter] ?? []).join(' ')
  const sounds: string[] = []
  for (let left = word; left.length > 0;) {
    const rule = RULES.find(([letters]) => letters.test(left))
    const length = rule?.[0].exec(left)?.[0].length ?? 1
    if (rule?.[1]) sounds.push(rule[1])
    left = left.slice(Math.max(1, length))
  }
  return sounds.join(' ') || LETTER_NAMES[word[0] ?? ''] || 'AH'
}
