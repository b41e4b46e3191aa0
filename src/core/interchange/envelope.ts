import { parseJson } from './parseJson'

export type EnvelopeRead =
  { ok: true; raw: unknown } | { ok: false; reason: 'not-json' | 'newer-version'; detail: string }

/**
 * Reads the outside of a file of ours: whether it is JSON, and of a version that this Brimble knows. `kind`: what it
 * says under `brimble`. What it holds is not looked at.
 */
export function readEnvelope(text: string, kind: string, newest: number): EnvelopeRead {
  const parsed = parseJson(text)
  if (!parsed.ok) return parsed
  const { raw } = parsed
  const { brimble, version } = (raw ?? {}) as { brimble?: unknown; version?: unknown }
  if (brimble === kind && typeof version === 'number' && version > newest)
    return { ok: false, reason: 'newer-version', detail: `version ${version}` }
  return { ok: true, raw }
}
