import { sweepHearing } from './hearing/pocketsphinx'
import { sweepPickUps } from './pickUp/pickUp'
import { sweepBundleParts } from './renderNodes'
import { sweepWorkingCopies } from './workingCopy/workingCopy'

/** Removes what a server before this one could not: copies of private videos that nobody would look after. */
export async function sweepAtStart(): Promise<void> {
  sweepPickUps()
  sweepWorkingCopies()
  sweepHearing()
  await sweepBundleParts()
}
