import type { Edit } from '../model/edit'
import { layoutOf, passageOf, recordingOf, setupOf } from '../model/edit'
import { slip } from '../cut/passages'
import { toRecordingMicros, timeMapOf } from '../time/timeMap'
import { splitCue } from '../words/cueEdits'
import type { Remedy } from './finding'

/** Does what a remedy says, in place. Throws RangeError when the edit lacks a record that it names. */
export function applyRemedy(edit: Edit, remedy: Remedy): void {
  const { highlight } = edit
  switch (remedy.kind) {
    case 'move-crop': {
      const { correction } = remedy
      const passage = passageOf(edit, remedy.passageId)
      passage.corrections = [...passage.corrections.filter((c) => c.panelId !== correction.panelId || c.shapeId !== correction.shapeId), correction]
      return
    }
    case 'tighten-region':
    case 'grow-region': {
      const region = setupOf(edit, remedy.setupId).regions.find((r) => r.id === remedy.regionId)
      if (region) region.bounds = remedy.bounds
      return
    }
    case 'move-inset':
    case 'lower-band':
    case 'swap-bands':
      layoutOf(edit, remedy.layoutId).perShape[remedy.shapeId] = structuredClone(remedy.arrangement)
      return
    case 'backdrop': {
      const layout = layoutOf(edit, remedy.layoutId)
      for (const arrangement of [layout.arrangement, ...Object.values(layout.perShape)]) arrangement.backdrop = remedy.backdrop
      return
    }
    case 'slip': {
      const passage = passageOf(edit, remedy.passageId)
      Object.assign(passage, slip(passage, remedy.byMicros, recordingOf(edit, passage.recordingId)))
      return
    }
    case 'shorten-join': {
      const passage = passageOf(edit, remedy.passageId)
      if (passage.join.kind !== 'cut') passage.join = { ...passage.join, lengthMicros: remedy.toMicros }
      return
    }
    case 'slow-down':
      passageOf(edit, remedy.passageId).speedPercent = remedy.speedPercent
      return
    case 'own-rate':
      highlight.output.frameRate = null
      return
    case 'smaller-file':
      highlight.output.quality = 'small'
      return
    case 'limit-size':
      highlight.output.mostBytes = remedy.mostBytes
      return
    case 'end-at':
      return endAt(edit, remedy.atMicros)
    case 'gain':
      for (const { sound } of highlight.passages) if (!sound.muted) sound.gainDb += remedy.db
      for (const bed of highlight.beds) bed.gainDb += remedy.db
      if (remedy.limitDb !== null) highlight.limitDb = remedy.limitDb
      return
    case 'lengthen-cue': {
      const cue = highlight.words.cues.find((c) => c.id === remedy.cueId)
      if (cue) cue.toMicros = Math.max(cue.toMicros, remedy.toMicros)
      return
    }
    case 'split-cue':
      highlight.words.cues = splitCue(highlight.words.cues, remedy.cueId, remedy.at, remedy.newId)
      return
    case 'style': {
      const { titles, captions } = highlight.words
      const written = remedy.titleId === null ? captions : titles.find((t) => t.id === remedy.titleId)
      if (written) Object.assign(written.style, remedy.change)
    }
  }
}

function endAt({ highlight }: Edit, t: number): void {
  const at = toRecordingMicros(timeMapOf(highlight), t)
  if (!at) return
  const index = highlight.passages.findIndex((p) => p.id === at.passage.id)
  const last = highlight.passages[index]
  if (!last || at.recordingMicros <= last.inMicros) return
  last.outMicros = at.recordingMicros
  highlight.passages = highlight.passages.slice(0, index + 1)
}

/** A copy on which a remedy can be tried without touching the edit itself. Cues, which may be thousands, are only copied for remedies about words. */
export function tryRemedy(edit: Edit, remedy: Remedy): Edit {
  const about = remedy.kind === 'style' || remedy.kind === 'lengthen-cue' || remedy.kind === 'split-cue'
  const { words, ...others } = edit.highlight
  const copy: Edit = { ...edit, highlight: { ...structuredClone(others), words: about ? structuredClone(words) : words }, setups: structuredClone(edit.setups), layouts: structuredClone(edit.layouts) }
  applyRemedy(copy, remedy)
  return copy
}
