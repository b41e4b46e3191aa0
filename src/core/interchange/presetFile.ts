import type { OutputChoice } from '../model/outputChoice'

/** Render settings under their name as a file, for renders without a person. */
export function writePresetFile(name: string, output: OutputChoice): string {
  return `${JSON.stringify({ brimble: 'preset', version: 1, name, output }, null, 2)}\n`
}

/** The settings out of such a file; anything else as it is: they may have been written by hand. */
export function settingsOfPreset(raw: unknown): unknown {
  return typeof raw === 'object' && raw !== null && 'brimble' in raw && raw.brimble === 'preset' && 'output' in raw
    ? raw.output
    : raw
}
