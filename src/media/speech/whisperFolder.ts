import { z } from 'zod'

/** A person's folder with a Whisper model in ONNX form, read as far as need be to use it. */
export interface WhisperFolder {
  name: string
  /** By path in the folder; only what the model needs. */
  files: ReadonlyMap<string, Blob>
  /** Names of its two weights' forms, as its files' endings say. */
  forms: { encoder: WeightForm; decoder: WeightForm }
  /** Whether it says that it tells when each word is said, not only each sentence. */
  timesWords: boolean
  /** Language codes it can be told; none for a model of one language. */
  languages: string[]
}

export type WeightForm = 'q8' | 'int8' | 'uint8' | 'q4' | 'bnb4' | 'fp32'

export type FolderRead =
  | { ok: true; folder: WhisperFolder }
  | { ok: false; reason: 'missing'; missing: string[] }
  | { ok: false; reason: 'unreadable'; path: string }
  | { ok: false; reason: 'another-kind' }

/** Forms of weights that a processor can run, and how their files' names end; the quickest first. */
const FORMS: readonly (readonly [WeightForm, string])[] = [
  ['q8', '_quantized'],
  ['int8', '_int8'],
  ['uint8', '_uint8'],
  ['q4', '_q4'],
  ['bnb4', '_bnb4'],
  ['fp32', ''],
]

const SETTINGS = [
  'config.json',
  'generation_config.json',
  'preprocessor_config.json',
  'tokenizer.json',
  'tokenizer_config.json',
] as const

/** The largest tokenizers have about a tenth of this. */
const MAX_SETTINGS_BYTES = 40_000_000

const config = z.object({ model_type: z.string() })
const generationConfig = z.object({
  lang_to_id: z.record(z.string(), z.number()).optional(),
  is_multilingual: z.boolean().optional(),
  alignment_heads: z.array(z.unknown()).optional(),
})

/**
 * Looks whether a folder's files (by path in it) are a Whisper model. Weights may lie in `onnx/` or beside the
 * settings.
 */
export async function readWhisperFolder(name: string, all: ReadonlyMap<string, Blob>): Promise<FolderRead> {
  const encoder = weightsIn(all, 'encoder_model')
  const decoder = weightsIn(all, 'decoder_model_merged')
  const missing = [
    ...SETTINGS.filter((path) => !all.has(path)),
    ...(encoder ? [] : ['onnx/encoder_model.onnx']),
    ...(decoder ? [] : ['onnx/decoder_model_merged.onnx']),
  ]
  if (!encoder || !decoder || missing.length > 0) return { ok: false, reason: 'missing', missing }
  const kind = await settings(all, 'config.json', config)
  const how = await settings(all, 'generation_config.json', generationConfig)
  if (!kind) return { ok: false, reason: 'unreadable', path: 'config.json' }
  if (!how) return { ok: false, reason: 'unreadable', path: 'generation_config.json' }
  if (kind.model_type !== 'whisper') return { ok: false, reason: 'another-kind' }
  const files = new Map([...all].filter(([path]) => path.endsWith('.json') && !path.includes('/')))
  for (const [path, blob] of [...encoder.files, ...decoder.files]) files.set(path, blob)
  const languages =
    how.is_multilingual === false
      ? []
      : Object.keys(how.lang_to_id ?? {}).map((token) => token.replace(/^<\||\|>$/g, ''))
  return {
    ok: true,
    folder: {
      name,
      files,
      forms: { encoder: encoder.form, decoder: decoder.form },
      timesWords: (how.alignment_heads?.length ?? 0) > 0,
      languages,
    },
  }
}

function weightsIn(all: ReadonlyMap<string, Blob>, stem: string): { form: WeightForm; files: [string, Blob][] } | null {
  for (const [form, ending] of FORMS) {
    const file = `${stem}${ending}.onnx`
    const place = ['onnx/', ''].find((p) => all.has(`${p}${file}`))
    if (place === undefined) continue
    // Large weights lie in files of their own beside the model.
    const files = [...all].filter(([path]) => path === `${place}${file}` || path.startsWith(`${place}${file}_data`))
    return { form, files: files.map(([path, blob]) => [`onnx/${path.slice(place.length)}`, blob]) }
  }
  return null
}

async function settings<T>(all: ReadonlyMap<string, Blob>, path: string, schema: z.ZodType<T>): Promise<T | null> {
  const blob = all.get(path)
  if (!blob || blob.size > MAX_SETTINGS_BYTES) return null
  try {
    const read = schema.safeParse(JSON.parse(await blob.text()))
    return read.success ? read.data : null
  } catch {
    return null
  }
}
