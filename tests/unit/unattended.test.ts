import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { findNeeds, indexMedia } from '../../unattended/media.mjs'
import { placeAs, placeTogether } from '../../unattended/place.mjs'

let dir: string
const put = (name: string, text: string) => (writeFileSync(join(dir, name), text), join(dir, name))
const read = (name: string) => readFileSync(join(dir, name), 'utf8')

beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'brimble-place-'))
})

describe('giving files their names', () => {
  it('never puts one over another; what could not be placed stays where it was', () => {
    put('glide.mp4', 'old')
    const part = put('part', 'new')
    expect(placeAs(part, dir, 'glide.mp4')).toBe(false)
    expect([read('glide.mp4'), existsSync(part)]).toEqual(['old', true])
    expect(placeAs(part, dir, 'other.mp4')).toBe(true)
    expect([read('other.mp4'), existsSync(part)]).toEqual(['new', false])
  })

  it('numbers a second one, and what belongs to it with it', () => {
    put('glide.mp4', 'old')
    put('glide (2).vtt', 'old captions of a video that is gone')
    const names = placeTogether(
      [
        { from: put('a', 'video'), name: 'glide.mp4' },
        { from: put('b', 'captions'), name: 'glide.vtt' },
      ],
      dir,
    )
    expect(names).toEqual(['glide (3).mp4', 'glide (3).vtt'])
    expect([read('glide (3).mp4'), read('glide (3).vtt')]).toEqual(['video', 'captions'])
    expect(readdirSync(dir).sort()).toEqual(['glide (2).vtt', 'glide (3).mp4', 'glide (3).vtt', 'glide.mp4'])
  })
})

describe('finding recordings', () => {
  const need = (fileName: string, sizeBytes: number) => [{ id: 'r', fileName, sizeBytes }]

  it('looks in folders within the folder, whatever the case, and takes the one of the right size', () => {
    mkdirSync(join(dir, 'monday', 'late'), { recursive: true })
    put('monday/ridge.mp4', '12345')
    const right = put('monday/late/Ridge.MP4', '123')
    expect(findNeeds(indexMedia(dir), need('ridge.mp4', 3))).toEqual({ ok: true, found: [{ id: 'r', path: right }] })
  })

  it('tells a file that is not there from another one of its name', () => {
    put('ridge.mp4', '12345')
    expect(findNeeds(indexMedia(dir), need('ridge.mp4', 3))).toEqual({ ok: false, missing: 'ridge.mp4', differs: true })
    expect(findNeeds(indexMedia(dir), need('field.mp4', 3))).toEqual({
      ok: false,
      missing: 'field.mp4',
      differs: false,
    })
  })

  it('never follows a name out of the folder', () => {
    mkdirSync(join(dir, 'in'))
    put('secret.mp4', '123')
    expect(findNeeds(indexMedia(join(dir, 'in')), need('../secret.mp4', 3))).toMatchObject({ ok: false })
    expect(() => indexMedia(join(dir, 'nowhere'))).toThrow(/no folder/)
  })
})
