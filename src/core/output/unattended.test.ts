import { describe, expect, it } from 'vitest'
import { sampleEdit } from '../../../tests/support/edits'
import { writePresetFile } from '../interchange/presetFile'
import { edit as editSchema } from '../model/edit'
import { USUAL_OUTPUT } from '../model/outputChoice'
import { neededFiles, unattendedWish, wishedFiles } from './unattended'

const wish = (given: object) => unattendedWish.parse(given)

function chosen(given: object, edit = sampleEdit()) {
  const read = wishedFiles(edit, wish(given))
  if (!read.ok) throw new Error(read.unknownShape)
  return read.wanted
}

describe('a wish without a person', () => {
  it('is, where nothing is said, the highlight as it would be rendered on the Bench', () => {
    const [only, ...others] = chosen({})
    expect(others).toEqual([])
    expect(only).toMatchObject({
      shape: { id: 'tall', width: 1080, height: 1920 },
      settings: { size: null, frameRate: { num: 60, den: 1 }, coding: 'mp4-h264', constantQuality: 'standard' },
    })
  })

  it('takes shapes of the highlight and standard ones, each once, and tells which it does not know', () => {
    expect(chosen({ shapes: ['wide', 'tall', 'wide'] }).map((w) => w.shape.id)).toEqual(['wide', 'tall'])
    expect(wishedFiles(sampleEdit(), wish({ shapes: ['tall', 'oval'] }))).toEqual({ ok: false, unknownShape: 'oval' })
  })

  it('changes of the settings what it says, and nothing else', () => {
    const edit = sampleEdit()
    const own = {
      ...edit,
      highlight: {
        ...edit.highlight,
        output: { ...edit.highlight.output, quality: 'high' as const, poster: true, frameRate: { num: 25, den: 1 } },
      },
    }
    expect(chosen({ output: { coding: 'webm-vp9' } }, own)[0]?.settings).toMatchObject({
      coding: 'webm-vp9',
      constantQuality: 'high',
      poster: true,
      frameRate: { num: 25, den: 1 },
    })
    // A quality stands against a size or a bitrate that was fixed before.
    const limited = {
      ...edit,
      highlight: {
        ...edit.highlight,
        output: { ...edit.highlight.output, mostBytes: 1_000_000, videoBitrate: 500_000 },
      },
    }
    expect(chosen({}, limited)[0]?.settings.constantQuality).toBeNull()
    expect(chosen({ output: { quality: 'small' } }, limited)[0]?.settings.constantQuality).toBe('small')
  })

  it('takes a preset that was saved as a file', () => {
    const preset = JSON.parse(
      writePresetFile('Draft', { ...USUAL_OUTPUT, quality: 'small', coding: 'mp4-vp9' }),
    ) as object
    expect(chosen({ output: preset })[0]?.settings).toMatchObject({ coding: 'mp4-vp9', constantQuality: 'small' })
  })

  it('leaves captions off the picture that are kept off it', () => {
    const edit = sampleEdit()
    const hidden = editSchema.parse({
      ...edit,
      highlight: {
        ...edit.highlight,
        words: { ...edit.highlight.words, captions: { ...edit.highlight.words.captions, shown: false } },
      },
    })
    expect(chosen({}, hidden)[0]?.settings.captions).toBe('neither')
    expect(chosen({ output: { captions: 'both' } }, hidden)[0]?.settings.captions).toBe('beside')
  })

  it('can be for exact files, whatever the highlight says', () => {
    const [file] = chosen({})
    const exact = {
      shape: { id: 'small', width: 270, height: 480 },
      settings: { ...file?.settings, videoBitrate: 123_456 },
    }
    expect(chosen({ files: [exact], shapes: ['oval'] })).toEqual([exact])
  })

  it.each([
    [{ output: { quality: 'splendid' } }],
    [{ output: { speed: 2 } }],
    [{ shapes: [] }],
    [{ backEnd: 'paper' }],
    [{ outputs: {} }],
  ])('makes no sense as %j', (given) => {
    expect(unattendedWish.safeParse(given).success).toBe(false)
  })

  it('needs the recordings that are played, by name and size', () => {
    expect(neededFiles(sampleEdit())).toEqual([{ id: 'r', fileName: 'ridge.mp4', sizeBytes: 1000 }])
  })
})
