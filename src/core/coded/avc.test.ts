import { describe, expect, it } from 'vitest'
import { SEED, seeded } from '../../../tests/support/seeded'
import { mergedAvcConfig, readAvcConfig, writeAvcConfig, type AvcConfig } from './avcConfig'
import { configWithIds, idsBeside, packetWithIds } from './avcIds'
import { BitReader, BitWriter, ueLength } from './bits'
import { isDisposable } from './disposable'

const random = seeded(SEED)

/**
 * A unit's bytes so that no start code is in them (Rec. ITU-T H.264, 7.4.1), made by other means than the product's.
 */
function escaped(plain: readonly number[]): Uint8Array {
  const out: number[] = []
  for (const byte of plain) {
    if (byte <= 3 && out.length >= 2 && out.at(-1) === 0 && out.at(-2) === 0) out.push(3)
    out.push(byte)
  }
  return Uint8Array.from(out)
}

function plainOf(unit: Uint8Array): number[] {
  const out: number[] = []
  unit.forEach((byte, i) => {
    if (!(byte === 3 && i >= 2 && unit[i - 1] === 0 && unit[i - 2] === 0)) out.push(byte)
  })
  return out
}

function sequenceSet(profile: number, id: number): Uint8Array {
  const bits = new BitWriter()
  bits.bits(0x67, 8)
  bits.bits(profile, 8)
  bits.bits(0, 8)
  bits.bits(40, 8)
  bits.ue(id)
  // 4:2:0 with 8 bits, as far as profiles from High on say so, and something behind it.
  for (const value of profile >= 100 ? [1, 0, 0] : []) bits.ue(value)
  bits.bits(0b10110011, 8)
  bits.bit(1)
  return escaped([...bits.end()])
}

function pictureSet(id: number, sequence: number): Uint8Array {
  const bits = new BitWriter()
  bits.bits(0x68, 8)
  bits.ue(id)
  bits.ue(sequence)
  bits.bits(0b1011, 4)
  bits.bit(1)
  return escaped([...bits.end()])
}

const config = (profile: number, sequence = 0, picture = 0): AvcConfig => ({
  profile,
  compatibility: 0,
  level: 40,
  lengthBytes: 4,
  sequenceSets: [sequenceSet(profile, sequence)],
  pictureSets: [pictureSet(picture, sequence)],
  tail: profile >= 100 ? Uint8Array.of(0xfd, 0xf8, 0xf8, 0) : new Uint8Array(0),
})

/** A slice with its head and coded bytes, many of them 0, and where the number of its picture set begins. */
function slice(pictureId: number): { unit: Uint8Array; from: number; coded: number[] } {
  const bits = new BitWriter()
  bits.bits(0x65, 8)
  const [first, type] = [random.integer(0, 4000), random.integer(0, 9)]
  bits.ue(first)
  bits.ue(type)
  bits.ue(pictureId)
  const coded = Array.from({ length: 200 }, () => (random.next() < 0.5 ? 0 : random.integer(0, 255)))
  for (const byte of coded) bits.bits(byte, 8)
  bits.bits(1, 1)
  return { unit: escaped([...bits.end()]), from: 8 + ueLength(first) + ueLength(type), coded }
}

function packetOf(units: readonly Uint8Array[]): Uint8Array {
  return Uint8Array.from(units.flatMap((u) => [0, 0, u.length >> 8, u.length & 255, ...u]))
}

describe('H.264 of two coders in one track', () => {
  it('reads what it writes, bit by bit', () => {
    const values = Array.from({ length: 300 }, () => random.integer(0, 2 ** random.integer(0, 16)))
    const writer = new BitWriter()
    for (const value of values) writer.ue(value)
    const reader = new BitReader(writer.end())
    for (const value of values) {
      const from = reader.at
      expect(reader.ue()).toBe(value)
      expect(reader.at - from).toBe(ueLength(value))
    }
    expect(() => new BitReader(new Uint8Array(8)).ue()).toThrow(RangeError)
  })

  it('reads and writes decoder records, and tells of both in one', () => {
    for (const profile of [66, 77, 100]) expect(readAvcConfig(writeAvcConfig(config(profile)))).toEqual(config(profile))
    const both = mergedAvcConfig(config(66), config(100, 3, 5))
    expect(both).toMatchObject({
      profile: 100,
      level: 40,
      sequenceSets: [sequenceSet(66, 0), sequenceSet(100, 3)],
      pictureSets: [pictureSet(0, 0), pictureSet(5, 3)],
    })
    expect(both && readAvcConfig(writeAvcConfig(both))).toEqual(both)
    // Ten bits a sample, and lengths that differ, cannot be told of beside what everything plays.
    expect(mergedAvcConfig(config(66), config(110))).toBeNull()
    expect(mergedAvcConfig(config(66), { ...config(66), lengthBytes: 2 })).toBeNull()
    for (const broken of [
      new Uint8Array(0),
      Uint8Array.of(2, 66, 0, 40, 255, 225),
      writeAvcConfig(config(66)).slice(0, 12),
    ])
      expect(readAvcConfig(broken)).toBeNull()
  })

  it.each([
    [0, 0, 0],
    [0, 15, 15],
    [2, 0, 31],
    [7, 127, 127],
    [14, 127, 3],
  ])(
    'gives picture set %i numbers that another with %i and %i does not use, and leaves coded bytes as they are',
    (own, one, other) => {
      const mine = config(66, 0, own)
      const theirs: AvcConfig = { ...config(100), pictureSets: [pictureSet(one, 0), pictureSet(other, 0)] }
      const ids = idsBeside(mine, theirs)
      if (!ids) throw new Error('no numbers')
      const renumbered = configWithIds(mine, ids)
      const id = ids.picture.get(own) ?? -1
      expect([one, other]).not.toContain(id)
      expect(ids.sequence.get(0)).toBe(1)
      expect(renumbered.sequenceSets).toEqual([sequenceSet(66, 1)])
      expect(renumbered.pictureSets).toEqual([pictureSet(id, 1)])
      for (let n = 0; n < 40; n++) {
        const { unit, from, coded } = slice(own)
        const extra = Uint8Array.of(6, 1, 2, 3)
        const packet = packetWithIds(packetOf([extra, unit]), ids)
        const length = new DataView(packet.buffer).getUint32(0)
        expect(packet.length).toBe(4 + length)
        const after = packet.subarray(4)
        for (let i = 2; i < after.length; i++)
          expect((after[i - 2] ?? 1) === 0 && (after[i - 1] ?? 1) === 0 && (after[i] ?? 9) < 3).toBe(false)
        const reader = new BitReader(Uint8Array.from(plainOf(after)), from)
        expect(reader.ue()).toBe(id)
        // A whole byte further on: every coded bit lies in its byte where it lay.
        expect(reader.at).toBe(from + ueLength(own) + 8)
        for (const byte of coded) expect(reader.bits(8)).toBe(byte)
        expect(reader.bit()).toBe(1)
        expect(isDisposable(packet, 4)).toBe(isDisposable(packetOf([unit]), 4))
      }
    },
  )

  it('says so when a packet is not what it should be', () => {
    const ids = idsBeside(config(66), config(100))
    if (!ids) throw new Error('no numbers')
    expect(() => packetWithIds(Uint8Array.of(0, 0, 0, 9, 0x65, 1), ids)).toThrow(RangeError)
    expect(() => packetWithIds(packetOf([slice(4).unit]), ids)).toThrow(RangeError)
    // A number that is as long as numbers get, and none left.
    expect(idsBeside(config(66, 0, 31), config(100))).toBeNull()
    expect(
      idsBeside(config(66), { ...config(66), sequenceSets: Array.from({ length: 32 }, (_, i) => sequenceSet(66, i)) }),
    ).toBeNull()
  })
})
