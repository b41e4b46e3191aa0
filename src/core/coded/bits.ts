/**
 * Reads bits, the highest of a byte first, and unsigned Exp-Golomb codes (Rec. ITU-T H.264, 9.1). Beyond the end
 * there are zeros.
 */
export class BitReader {
  constructor(
    private readonly bytes: Uint8Array,
    public at = 0,
  ) {}

  get left(): number {
    return this.bytes.length * 8 - this.at
  }

  bit(): number {
    const byte = this.bytes[this.at >> 3] ?? 0
    return (byte >> (7 - (this.at++ & 7))) & 1
  }

  bits(count: number): number {
    let value = 0
    for (let i = 0; i < count; i++) value = value * 2 + this.bit()
    return value
  }

  /** Throws RangeError where there is no code. */
  ue(): number {
    let zeros = 0
    while (this.bit() === 0) if (++zeros > 31) throw new RangeError('no Exp-Golomb code')
    return 2 ** zeros - 1 + this.bits(zeros)
  }
}

/** Writes what {@link BitReader} reads. */
export class BitWriter {
  private readonly bytes: number[] = []
  private count = 0

  bit(value: number): void {
    if ((this.count & 7) === 0) this.bytes.push(0)
    if (value) this.bytes[this.count >> 3] = (this.bytes[this.count >> 3] as number) | (0x80 >> (this.count & 7))
    this.count++
  }

  bits(value: number, count: number): void {
    for (let i = count - 1; i >= 0; i--) this.bit(Math.floor(value / 2 ** i) & 1)
  }

  ue(value: number): void {
    const length = ueLength(value)
    this.bits(0, (length - 1) / 2)
    this.bits(value + 1, (length + 1) / 2)
  }

  /** The bits written so far, with zeros up to a whole byte. */
  end(): Uint8Array<ArrayBuffer> {
    return Uint8Array.from(this.bytes)
  }
}

/** How many bits the Exp-Golomb code of a number takes. */
export const ueLength = (value: number) => 2 * Math.floor(Math.log2(value + 1)) + 1
