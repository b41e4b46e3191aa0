import type { Table } from 'dexie'
import type { RecordKind, RecordOf } from '@/core/model/migrate'
import { database, type Database } from './database'

const NAMES = {
  recording: 'recordings',
  soundFile: 'soundFiles',
  imageFile: 'imageFiles',
  fontFile: 'fontFiles',
  brand: 'brands',
  outlet: 'outlets',
  setup: 'setups',
  layout: 'layouts',
  recipe: 'recipes',
  highlight: 'highlights',
  version: 'versions',
  spotting: 'spottings',
  renderPreset: 'renderPresets',
  render: 'renders',
  post: 'posts',
} as const satisfies Record<RecordKind, keyof Database>

/** The table that holds records of a kind, by their ids. */
export function tableOf<K extends RecordKind>(kind: K): Table<RecordOf<K>, string> {
  return database().table(NAMES[kind])
}
