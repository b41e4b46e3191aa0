import type { seeded } from './seeded'

type Random = ReturnType<typeof seeded>

/** As much of JSON Schema as zod writes. */
export interface JsonSchema {
  $ref?: string
  $defs?: Record<string, JsonSchema>
  type?: string
  const?: unknown
  enum?: unknown[]
  anyOf?: JsonSchema[]
  oneOf?: JsonSchema[]
  default?: unknown
  properties?: Record<string, JsonSchema>
  required?: string[]
  items?: JsonSchema
  minItems?: number
  maxItems?: number
  minLength?: number
  maxLength?: number
  pattern?: string
  format?: string
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  exclusiveMaximum?: number
  multipleOf?: number
}

/** How deep trees grow, and how long lists. */
const DEEPEST = 9
const LONGEST = 3

const IDS = ['a', 'b', 'c']
const TEXTS = ['Last gate', 'Über den Grat', '最後のゲート', 'شريط', '👩‍✈️ two up', '<b>&amp;', 'a\nb', 'x'.repeat(60)]

/**
 * Values that a schema allows, its outermost ones more often than chance would: each number is at an end of its range
 * half of the time. Ids are a few letters, so that some refer to something and some do not.
 */
export class FromSchema {
  constructor(
    private readonly root: JsonSchema,
    private readonly random: Random,
  ) {}

  make(schema: JsonSchema = this.root, key = '', depth = 0): unknown {
    const { random } = this
    if (schema.$ref) return this.make(this.resolve(schema.$ref), key, depth + 1)
    if ('const' in schema) return schema.const
    if (schema.enum) return random.pick(schema.enum)
    if (schema.default !== undefined && random.next() < 0.3) return structuredClone(schema.default)
    const choices = schema.anyOf ?? schema.oneOf
    if (choices) return this.make(depth > DEEPEST ? flattest(choices) : random.pick(choices), key, depth)
    switch (schema.type) {
      case 'object':
        return Object.fromEntries(
          Object.entries(schema.properties ?? {}).flatMap(([name, of]) =>
            schema.required?.includes(name) || random.next() < 0.6 ? [[name, this.make(of, name, depth + 1)]] : [],
          ),
        )
      case 'array': {
        const least = schema.minItems ?? 0
        const most = Math.max(least, Math.min(LONGEST, schema.maxItems ?? LONGEST))
        return Array.from({ length: random.integer(least, depth > DEEPEST ? least : most) }, () =>
          this.make(schema.items ?? {}, key, depth + 1),
        )
      }
      case 'string':
        return this.text(schema, key)
      case 'integer':
      case 'number':
        return this.number(schema)
      case 'boolean':
        return random.next() < 0.5
      default:
        return null
    }
  }

  private resolve(ref: string): JsonSchema {
    const found = this.root.$defs?.[ref.split('/').at(-1) ?? '']
    if (!found) throw new RangeError(`nothing is called ${ref}`)
    return found
  }

  private text({ format, pattern, minLength = 0, maxLength = 200 }: JsonSchema, key: string): string {
    const { random } = this
    if (format === 'date-time') return '2026-11-24T10:00:00.000Z'
    if (/^id$|Id$/.test(key)) return random.pick(IDS)
    if (pattern?.startsWith('^#')) return `#${random.integer(0, 0xffffff).toString(16).padStart(6, '0')}`
    if (pattern) return 'Instrument Sans'
    return random.pick(TEXTS).slice(0, maxLength).padEnd(minLength, 'x')
  }

  private number({ type, minimum, maximum, exclusiveMinimum, exclusiveMaximum, multipleOf = 1 }: JsonSchema): number {
    const { random } = this
    const step = type === 'integer' ? 1 : 1e-6
    const least = minimum ?? (exclusiveMinimum === undefined ? -1e6 : exclusiveMinimum + step)
    const most = maximum ?? (exclusiveMaximum === undefined ? Math.max(least, 1e6) : exclusiveMaximum - step)
    const chance = random.next()
    if (chance < 0.25) return least
    if (chance < 0.5) return most
    return type === 'integer'
      ? Math.floor(random.integer(least, most) / multipleOf) * multipleOf
      : random.between(least, most)
  }
}

/** The choice that holds the fewest others. */
function flattest(choices: readonly JsonSchema[]): JsonSchema {
  return [...choices].sort((a, b) => JSON.stringify(a).length - JSON.stringify(b).length)[0] ?? {}
}
