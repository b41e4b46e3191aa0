import type { TextStyle } from '@/core/model/textStyle'
import { note } from '@/diagnostics/note'
import { cssFont } from './measureText'

/** One font file, as public/fonts/faces.json lists them: a part of a family's letters. */
interface ListedFace {
  family: string
  weight: string
  unicodeRange: string
  file: string
}

/** The fonts of this thread: the page's, or a worker's own. */
const fonts = () => (globalThis as unknown as { fonts: FontFaceSet }).fonts ?? document.fonts

let listed: Promise<void> | null = null

/** Tells this thread which fonts there are; none is read before a letter of it is needed. */
function listFaces(): Promise<void> {
  listed ??= (async () => {
    const reply = await fetch('/fonts/faces.json')
    if (!reply.ok) throw new Error(`/fonts/faces.json: ${reply.status}`)
    for (const { family, weight, unicodeRange, file } of (await reply.json()) as ListedFace[])
      fonts().add(new FontFace(family, `url(/fonts/${file})`, { weight, unicodeRange }))
  })()
  listed.catch((error: unknown) => {
    note('the list of fonts', error)
    listed = null
  })
  return listed
}

/** Fonts that came along, by family, with the blob that each was listed from. */
const own = new Map<string, Blob>()

/** Tells this thread of a font that came along; it is read when a letter of it is needed. A family is listed once. */
export function listOwnFont(family: string, file: Blob): void {
  if (own.has(family)) return
  own.set(family, file)
  fonts().add(new FontFace(family, `url(${URL.createObjectURL(file)})`))
  ready.clear()
}

/** Texts whose letters are here already, with their face. */
const ready = new Set<string>()
const MAX_KNOWN = 2000

/**
 * Loads what is needed to draw `text`: the style's own font, and for letters that it lacks those that stand in for
 * it. Says whether anything new came.
 */
export async function loadFonts(text: string, { font, weight, capitals }: TextStyle): Promise<boolean> {
  const key = `${font} ${weight} ${capitals} ${text}`
  if (ready.has(key)) return false
  await listFaces()
  const loaded = await fonts().load(cssFont({ font, weight, size: 16 }), capitals ? text.toLocaleUpperCase() : text)
  if (ready.size >= MAX_KNOWN) ready.clear()
  ready.add(key)
  return loaded.length > 0
}
