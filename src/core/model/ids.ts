import { z } from 'zod'

const id = z.string().min(1).max(80)

export const recordingId = id.brand<'RecordingId'>()
export const regionId = id.brand<'RegionId'>()
export const setupId = id.brand<'SetupId'>()
export const layoutId = id.brand<'LayoutId'>()
export const panelId = id.brand<'PanelId'>()
export const insetId = id.brand<'InsetId'>()
export const imageFileId = id.brand<'ImageFileId'>()
export const brandId = id.brand<'BrandId'>()
export const outletId = id.brand<'OutletId'>()
export const recipeId = id.brand<'RecipeId'>()
export const renderPresetId = id.brand<'RenderPresetId'>()
export const batchId = id.brand<'BatchId'>()
export const postId = id.brand<'PostId'>()
export const highlightId = id.brand<'HighlightId'>()
export const passageId = id.brand<'PassageId'>()
export const renderId = id.brand<'RenderId'>()
export const soundFileId = id.brand<'SoundFileId'>()
export const bedId = id.brand<'BedId'>()
export const momentId = id.brand<'MomentId'>()
export const versionId = id.brand<'VersionId'>()
export const cueId = id.brand<'CueId'>()
export const titleId = id.brand<'TitleId'>()
export const speakerId = id.brand<'SpeakerId'>()
export const markId = id.brand<'MarkId'>()
export const fontFileId = id.brand<'FontFileId'>()
export const draftRunId = id.brand<'DraftRunId'>()

export type RecordingId = z.infer<typeof recordingId>
export type RegionId = z.infer<typeof regionId>
export type SetupId = z.infer<typeof setupId>
export type LayoutId = z.infer<typeof layoutId>
export type PanelId = z.infer<typeof panelId>
export type InsetId = z.infer<typeof insetId>
export type ImageFileId = z.infer<typeof imageFileId>
export type BrandId = z.infer<typeof brandId>
export type OutletId = z.infer<typeof outletId>
export type RecipeId = z.infer<typeof recipeId>
export type RenderPresetId = z.infer<typeof renderPresetId>
export type BatchId = z.infer<typeof batchId>
export type PostId = z.infer<typeof postId>
export type HighlightId = z.infer<typeof highlightId>
export type PassageId = z.infer<typeof passageId>
export type RenderId = z.infer<typeof renderId>
export type SoundFileId = z.infer<typeof soundFileId>
export type BedId = z.infer<typeof bedId>
export type MomentId = z.infer<typeof momentId>
export type VersionId = z.infer<typeof versionId>
export type CueId = z.infer<typeof cueId>
export type TitleId = z.infer<typeof titleId>
export type SpeakerId = z.infer<typeof speakerId>
export type MarkId = z.infer<typeof markId>
export type FontFileId = z.infer<typeof fontFileId>
export type DraftRunId = z.infer<typeof draftRunId>

/** A new id of any kind of record, or of what is in one. */
export function newId<T extends string>(): T {
  return crypto.randomUUID() as string as T
}
