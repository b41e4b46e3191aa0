/** What ffprobe says of a recording's picture, as far as it matters here. */
export interface ForeignVideo {
  transfer: string | null
  primaries: string | null
  matrix: string | null
  fieldOrder: string | null
  durationSeconds: number | null
}

/** Transfers of high dynamic range: PQ and HLG. */
const HDR_TRANSFERS: ReadonlySet<string> = new Set(['smpte2084', 'arib-std-b67'])

export const isHdr = ({ transfer }: ForeignVideo) => transfer !== null && HDR_TRANSFERS.has(transfer)

const isInterlaced = ({ fieldOrder }: ForeignVideo) => fieldOrder !== null && /^(tt|bb|tb|bt)$/.test(fieldOrder)

/**
 * From HDR to BT.709: linear light over a nominal white of 100 cd/m², then Hable’s curve, which keeps what is drawn
 * in highlights at the cost of some contrast.
 */
function toneMapped({ primaries, matrix }: ForeignVideo): string[] {
  // What is not said is as HDR is (BT.2020): the filter would not guess.
  const meant = [...(primaries ? [] : ['color_primaries=bt2020']), ...(matrix ? [] : ['colorspace=bt2020nc'])]
  return [
    ...(meant.length > 0 ? [`setparams=${meant.join(':')}`] : []),
    'zscale=t=linear:npl=100',
    'format=gbrpf32le',
    'zscale=p=bt709',
    'tonemap=tonemap=hable:desat=0',
    'zscale=t=bt709:m=bt709:r=tv',
  ]
}
const PLAIN = ['scale=out_color_matrix=bt709:out_range=tv:flags=bicubic+accurate_rnd+full_chroma_int']

/** ffmpeg’s filters that make pictures ones that any browser shows: 8 bit, BT.709, one frame a picture. */
function filtersFor(video: ForeignVideo): string {
  const frames = isInterlaced(video) ? ['bwdif=mode=send_frame:deint=all'] : []
  // Two pixels share a colour.
  const even = 'crop=trunc(iw/2)*2:trunc(ih/2)*2:0:0'
  return [...frames, even, ...(isHdr(video) ? toneMapped(video) : PLAIN), 'format=yuv420p'].join(',')
}

const TAGS = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv']

/**
 * Arguments by which ffmpeg makes an H.264 and AAC copy of a recording, with its clock, rate, length and sound
 * tracks, upright, and says on its standard output how far it is.
 */
export function copyArguments(input: string, output: string, video: ForeignVideo): string[] {
  return [
    ...['-v', 'error', '-nostdin', '-y', '-progress', 'pipe:1', '-i', input],
    ...['-map', '0:v:0', '-map', '0:a?', '-dn', '-sn', '-vf', filtersFor(video), '-fps_mode', 'passthrough'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '16', '-g', '60', ...TAGS],
    ...['-c:a', 'aac', '-b:a', '256k', '-movflags', '+faststart', output],
  ]
}

export const PROBE_ARGUMENTS = [
  ...['-v', 'error', '-select_streams', 'v:0', '-of', 'json'],
  ...['-show_entries', 'stream=color_transfer,color_primaries,color_space,field_order:format=duration'],
]

/** Reads ffprobe’s answer to {@link PROBE_ARGUMENTS}; null where it found no picture. */
export function readProbed(text: string): ForeignVideo | null {
  const { streams, format } = JSON.parse(text) as {
    streams?: { color_transfer?: string; color_primaries?: string; color_space?: string; field_order?: string }[]
    format?: { duration?: string }
  }
  const [stream] = streams ?? []
  if (!stream) return null
  const seconds = Number(format?.duration)
  return {
    transfer: saidOf(stream.color_transfer),
    primaries: saidOf(stream.color_primaries),
    matrix: saidOf(stream.color_space),
    fieldOrder: stream.field_order ?? null,
    durationSeconds: Number.isFinite(seconds) && seconds > 0 ? seconds : null,
  }
}

/** ffprobe leaves out what a file does not say, or calls it unknown. */
const saidOf = (text: string | undefined) => (text === undefined || text === 'unknown' ? null : text)

/** Seconds that are done, from what ffmpeg says of its progress; null where it does not say. */
export function readProgress(text: string): number | null {
  const micros = [...text.matchAll(/out_time_us=(\d+)/g)].at(-1)?.[1]
  return micros === undefined ? null : Number(micros) / 1e6
}
