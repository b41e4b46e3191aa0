import { expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import type { CueId } from '@/core/model/ids'
import { searchShelf } from './search'
import type { ShelfDay } from './useShelf'

function day(key: string, name: string, highlightName: string, said: string): ShelfDay {
  const { highlight, recordings } = sampleEdit()
  const [recording] = recordings
  if (!recording) throw new Error('the sample has changed')
  const cue = { id: 'c' as CueId, recordingId: recording.id, fromMicros: 0, toMicros: 1, text: said }
  const words = { ...highlight.words, cues: [cue] } as typeof highlight.words
  return {
    key,
    iso: `${key}T12:00:00.000Z`,
    rows: [
      {
        recording: { ...recording, name, fileName: `${name}.mp4` },
        highlights: [{ highlight: { ...highlight, name: highlightName, words }, files: 0 }],
        setupName: 'Evening stream',
        question: null,
      },
    ],
  }
}

const days = [
  day('2026-11-24', 'Ridge Cup, heat 3', 'Last gate', 'stay low along the ridge'),
  day('2026-11-22', 'Öffnungstag', 'The tea tent', 'can we fly visitors before noon'),
]
const found = (text: string) => searchShelf(days, text).map((d) => d.key)

it('finds recordings by their names, their highlights and what is said, in any case and without accents', () => {
  expect(found('')).toEqual(['2026-11-24', '2026-11-22'])
  expect(found('RIDGE')).toEqual(['2026-11-24'])
  expect(found('offnung')).toEqual(['2026-11-22'])
  expect(found('tea visitors')).toEqual(['2026-11-22'])
  expect(found('evening')).toEqual(['2026-11-24', '2026-11-22'])
  expect(found('gate noon')).toEqual([])
})
