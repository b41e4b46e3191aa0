import type { Recording } from '@/core/model/recording'
import type { ProbeFailure, SoundProbeResult } from '@/media/inspect/probe'
import type { KeepResult } from '@/store/recordings'
import { formatLength } from '@/ui/format'

/** What happened to a file that could not be added, and what to do about it. */
export function probeMessage(fileName: string, failure: ProbeFailure): string {
  const file = `“${fileName}”`
  switch (failure.reason) {
    case 'empty':
      return `${file} is empty (0 bytes). The recorder may still be writing it, or the copy failed: copy it again.`
    case 'not-a-video':
      return `${file} is not a video that Brimble can read. Choose an MP4, MOV, MKV, WebM or TS file.`
    case 'unread-container':
      return `${file} is of a kind that Brimble does not read (${failure.container}). Convert it to H.264 in MP4.`
    case 'encrypted':
      return `${file} is encrypted: its pictures cannot be read without its key. Export it without copy protection.`
    case 'no-key-frame':
      return `${file} has no key frame, so no picture in it can be decoded by itself. Record or export it again with key frames.`
    case 'no-video-track':
      return `${file} holds sound but no picture. Choose the recording with the picture.`
    case 'undecodable-codec':
      return `${file} is coded as ${failure.codec}, which this browser cannot decode. Convert it to H.264 in MP4, or set the recorder to H.264.`
    case 'cut-short':
      return `${file} was cut off before it was finished: the part that says where its pictures are is missing or damaged. Repair it with the recorder’s own tool, or copy it again.`
    case 'high-dynamic-range':
      return `${file} is an HDR recording. Brimble does not convert HDR yet and would wash out its colours: record or export it as SDR (Rec. 709).`
    case 'unreadable':
      return `${file} could not be read (${failure.detail}). Check that the file still opens elsewhere, then add it again.`
  }
}

/** The same of a file that was to be used for its sound alone. */
export function soundProbeMessage(fileName: string, failure: Extract<SoundProbeResult, { ok: false }>): string {
  switch (failure.reason) {
    case 'no-sound':
      return `“${fileName}” holds no sound.`
    case 'not-a-video':
      return `“${fileName}” is not a sound file that Brimble can read. Choose an MP3, M4A, WAV, FLAC, OGG or WebM file.`
    default:
      return probeMessage(fileName, failure)
  }
}

/** What could not be kept of a file, if anything. */
export function keepMessage(fileName: string, result: KeepResult): string | null {
  if (result.ok) return null
  if (result.reason === 'no-room')
    return `There is no room in the browser’s storage for a copy of “${fileName}”. You can work on it now; after a reload Brimble will ask you for the file. Remove something and empty the bin, or drop the file from its folder so that it can be linked.`
  return `A copy of “${fileName}” could not be kept. You can work on it now; after a reload Brimble will ask you for the file.`
}

/** Things about a recording that its owner should know, in words. */
export function noticeMessages(recording: Recording): string[] {
  return recording.notices.map((notice) => {
    switch (notice.kind) {
      case 'ends-early':
        return `Cut off after ${formatLength(recording.durationMicros)}: its index promises ${formatLength(notice.expectedMicros)}.`
      case 'sound-not-decodable':
        return `Its sound (${notice.codec}) cannot be decoded by this browser; it is treated as silent.`
      case 'starts-without-key-frame':
        return `Starts in the middle: its first ${formatLength(notice.lostMicros)} cannot be decoded and are not used.`
      case 'several-sound-tracks':
        return `${notice.count} sound tracks; only ${isNumber(notice.heard) ? `number ${notice.heard}` : `“${notice.heard}”`} is heard.`
      case 'several-picture-tracks':
        return `${notice.count} picture tracks; only the first is used.`
      case 'sound-goes-on':
        return `Its sound goes on ${formatLength(notice.beyondMicros)} after the last picture; that part is not used.`
      case 'interlaced':
        return 'May be interlaced: fine combs stay where things move.'
      case 'size-changes':
        return `Its picture changes to ${notice.width} × ${notice.height} part-way; it is stretched to one size.`
      case 'working-copy':
        return `Edited from a copy that ffmpeg made.${notice.fromHdr ? ' HDR was brought to BT.709 by Hable’s curve, which keeps what is in highlights.' : ''}`
      case 'clock-mended':
        return 'Its clock started again part-way; Brimble keeps a copy with one that goes on.'
    }
  })
}

const isNumber = (name: string) => /^\d+$/.test(name)

/** What the interface says in this room, each sentence once. */
export const wording = {
  recording: 'Recording',
  makeACopy: 'Make a copy that can be edited',
  makeACopyMeans: 'with the ffmpeg on this machine; your file stays as it is.',
  withFfmpegHere: 'With ffmpeg installed on this machine, Brimble could make a copy that can be edited.',
  makingACopy: (name: string) => `Making a copy of ${name}`,
  copyIsAt: (share: number, left: string | null) =>
    share === 0
      ? 'Handing it to ffmpeg'
      : `Making a copy: ${Math.round(100 * share)} %${left ? `, about ${left} left` : ''}`,
  copyFailed: (detail: string) => `ffmpeg could not make a copy: ${detail}`,
  copyRefused: {
    busy: 'Another copy is being made. Try again when it is done.',
    'no-room': 'There is not enough room on the disk for a copy.',
    'no-picture': 'ffmpeg finds no picture in it.',
  },
  cancel: 'Cancel',
  isNotWhereItWas: (fileName: string) => `“${fileName}” is not where it was. Choose it again.`,
  theBrowserWasNotAllowed: 'The browser was not allowed to read the file.',
  lastsTheRecordingItIs: (name: string, length: string, length2: string) =>
    `“${name}” lasts ${length}, the recording ${length2}: it is another file. Nothing was changed.`,
  brimbleNeedsYourPermissionTo: (fileName: string) => `Brimble needs your permission to read “${fileName}” again`,
  isMissing: (fileName: string) => `“${fileName}” is missing`,
  everythingYouDidIsKept: (needsPermission: boolean, length: string, video: string, bytes: string) =>
    `${
      needsPermission
        ? 'Browsers take back the permission to read a linked file when the page is closed.'
        : 'It was moved or deleted, or there was no room to keep a copy.'
    } Everything you did is kept. The file was ${length} long, ${video}, ${bytes}.`,
  allowReading: 'Allow reading',
  chooseTheFileAgain: 'Choose the file again',
}
