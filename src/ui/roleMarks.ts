import type { Role } from '@/core/model/region'

/** How a role is marked in the Frame and in the Shapes: colour, letter and line pattern, so never by colour alone. */
export interface RoleMark {
  colour: string
  letter: string
  dash: string
}

const MARKS: Record<string, RoleMark> = {
  face: { colour: '#C2502F', letter: 'F', dash: '' },
  game: { colour: '#2C7A50', letter: 'G', dash: '10 4' },
  speaker: { colour: '#A8721A', letter: 'S', dash: '2 3' },
  slides: { colour: '#3F6E8C', letter: 'L', dash: '12 3 2 3' },
  chat: { colour: '#6B7B2E', letter: 'C', dash: '6 3' },
  hud: { colour: '#4A6472', letter: 'H', dash: '4 4' },
  logo: { colour: '#8A5A44', letter: 'O', dash: '1 4' },
  whole: { colour: '#6A675C', letter: 'W', dash: '16 4' },
}

const OWN_COLOURS = ['#7A4B2A', '#27666B', '#8C3F4D', '#556B2F']

/** The mark of a role; the user's own roles get one from their name, the same every time. */
export function roleMark(role: Role): RoleMark {
  const standard = MARKS[role]
  if (standard) return standard
  const sum = [...role].reduce((a, c) => a + (c.codePointAt(0) ?? 0), 0)
  return {
    colour: OWN_COLOURS[sum % OWN_COLOURS.length] ?? '#7A4B2A',
    letter: role.slice(0, 1).toUpperCase(),
    dash: '8 2 2 2',
  }
}
