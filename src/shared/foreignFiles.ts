import { wording } from './wording'
/** Why the reader of foreign files gave a file up; see media/read/readForeign. */
export function unreadMessage(fileName: string, reason: 'too-slow' | 'broken'): string {
  const why = reason === 'too-slow' ? wording.takesFarLongerToRead : wording.cannotBeRead
  return wording.itIsDamagedOrMade(fileName, why)
}

/** Why a picture was not taken. */
export function pictureRefusal(fileName: string, reason: 'not-a-picture' | 'too-large'): string {
  if (reason === 'too-large') return wording.isTooLargePicturesHave(fileName)
  return wording.isNotAPictureThat(fileName)
}
