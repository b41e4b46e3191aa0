import { describe, expect, it } from 'vitest'
import type { RegionId, SetupId } from '../model/ids'
import { newRecord } from '../model/record'
import { newRegion } from '../model/region'
import { newSetup, type Setup } from '../model/setup'
import { freeName, mergeSetups, MOST_SETUP_FILE_BYTES, readSetupFile, writeSetupFile } from './setupFile'

const made = (id: string, name: string, x = 0.5): Setup =>
  newSetup({ ...newRecord('2026-11-25T10:00:00.000Z'), id: id as SetupId, name, regions: [newRegion('r' as RegionId, 'face', 'Wren', { x, y: 0.5, width: 0.25, height: 0.25 })], ownedBy: null, tags: ['soaring'] })

let ids = 0
const newId = () => `new ${++ids}` as SetupId

describe('files of setups', () => {
  it('give back what was written', () => {
    const setups = [made('a', 'Evening stream'), made('b', 'Club <b>call</b>', 0.1)]
    expect(readSetupFile(writeSetupFile(setups))).toEqual({ ok: true, setups, problems: [] })
  })

  it('never carry whose working copy a setup was', () => {
    const owned = { ...made('a', 'Evening'), ownedBy: 'h' as Setup['ownedBy'], basedOn: 'x' as SetupId }
    const read = readSetupFile(writeSetupFile([owned]))
    expect(read.ok && read.setups[0]).toMatchObject({ ownedBy: null, basedOn: null })
  })

  it.each([
    ['not JSON', '{', 'not-json'],
    ['another file', '{"a":1}', 'not-setups'],
    ['a list without end', JSON.stringify({ brimble: 'setups', version: 1, setups: Array.from({ length: 501 }, () => 0) }), 'not-setups'],
    ['too much', ' '.repeat(MOST_SETUP_FILE_BYTES + 1), 'too-large'],
  ])('are refused when they are %s', (_, text, reason) => {
    expect(readSetupFile(text)).toEqual({ ok: false, reason })
  })

  it('tell what is wrong with one setup and give the others', () => {
    const good = made('a', 'Evening')
    const outside = { ...made('b', 'Wild'), regions: [{ ...good.regions[0], bounds: { x: 0.9, y: 0, width: 0.5, height: 1 } }] }
    const newer = { ...made('c', 'Later'), schemaVersion: 99 }
    const read = readSetupFile(JSON.stringify({ brimble: 'setups', version: 1, setups: [outside, good, newer, 7] }))
    if (!read.ok) throw new Error(read.reason)
    expect(read.setups).toEqual([good])
    expect(read.problems.map((p) => p.index)).toEqual([0, 2, 3])
    expect(read.problems[0]?.reasons[0]).toContain('regions.0.bounds')
  })

  it('come in beside what is there: the same once, others under a name and an id of their own', () => {
    const there = [made('a', 'Evening'), made('b', 'Morning')]
    const changed = made('a', 'Evening', 0.2)
    const merge = mergeSetups(there, [made('b', 'Morning'), changed, made('z', 'Evening', 0.3), made('q', 'Noon')], newId)
    expect(merge.same).toEqual(['Morning'])
    expect(merge.add.map((s) => s.name)).toEqual(['Evening (2)', 'Evening (3)', 'Noon'])
    expect(new Set([...there, ...merge.add].map((s) => s.id)).size).toBe(5)
    expect(merge.add[0]?.regions[0]?.bounds.x).toBe(0.2)
  })

  it('find a free name', () => {
    expect(freeName('Face', ['Game'])).toBe('Face')
    expect(freeName('Face (2)', ['Face', 'Face (2)'])).toBe('Face (3)')
  })
})
