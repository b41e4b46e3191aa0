import { explain } from '@/diagnostics/note'
import { useRouter } from 'next/navigation'
import { useSnackbar } from 'notistack'
import { useCallback, useState } from 'react'
import { useOffer } from '@/ui/useOffer'
import { readForeign } from '@/media/read/readForeign'
import type { LaidOut } from '@/shared/looks/layOutClip'
import { bringInWork, isWork } from './bringInWork'
import type { ChosenFile } from '@/shared/recordings/chosenFiles'
import { takeIn, type TakenIn } from './takeIn'
import { withTextsBeside } from './textsBeside'
import { wording } from './wording'

export interface Problem {
  id: string
  text: string
  /** Whether it is for want of room, which the bin may give. */
  isNoRoom?: boolean
  /** A recording that this browser cannot read, and a copy of which it may. */
  curable?: File
}

/**
 * Adding files: how many are being read, and what went wrong with which; the good ones of a batch are added all the
 * same. `backup`: one that was among them, for the person to say how it is put back.
 */
export function useAdding() {
  const [reading, setReading] = useState(0)
  const [problems, setProblems] = useState<Problem[]>([])
  const [backup, setBackup] = useState<File | null>(null)
  const { enqueueSnackbar: tell } = useSnackbar()
  const offer = useOffer()
  const router = useRouter()
  const report = useCallback(
    (text: string, more: Pick<Problem, 'isNoRoom' | 'curable'> = {}) =>
      setProblems((all) => [...all, { id: crypto.randomUUID(), text, ...more }]),
    [],
  )
  const offerSheet = useCallback(
    (laidOut: readonly LaidOut[]) => {
      for (const recipeName of new Set(laidOut.map((l) => l.recipeName))) {
        const n = laidOut.filter((l) => l.recipeName === recipeName).length
        offer({
          words: wording.laidOutBy(n, recipeName),
          button: wording.seeThem,
          act: () => router.push('/outbox/sheet'),
          staysMs: 15_000,
        })
      }
    },
    [offer, router],
  )
  /** What is to be told of one that was taken in; the highlight that was made of it, if one was. */
  const took = useCallback(
    (taken: TakenIn, file?: File): LaidOut | null => {
      if (!taken.ok) {
        report(taken.problem, taken.isCurable ? { curable: file } : {})
        return null
      }
      if (taken.notKept) report(taken.notKept, { isNoRoom: true })
      return taken.laidOut
    },
    [report],
  )
  const add = useCallback(
    /** Resolves with how many recordings were added. */
    async (files: ChosenFile[]): Promise<number> => {
      setProblems([])
      let added = 0
      for (const { file } of files.filter((c) => isWork(c.file))) {
        setReading((n) => n + 1)
        try {
          const backup = await readForeign(file, (reader) => reader.isBackup(file))
          if (backup.ok && backup.value) {
            setBackup(file)
            continue
          }
          const { highlights, problems } = await bringInWork(file)
          problems.forEach((problem) => report(problem))
          if (highlights.length > 0) tell(wording.broughtIn(highlights.map((h) => `“${h.name}”`).join(', ')))
        } catch (error) {
          report(wording.couldNotBeBroughtIn(file.name, explain('adding a file', error)))
        } finally {
          setReading((n) => n - 1)
        }
      }
      const laidOut: LaidOut[] = []
      const { recordings, left } = withTextsBeside(files.filter((c) => !isWork(c.file)))
      for (const text of left) report(wording.holdsCaptionsButNoRecording(text.name))
      for (const { chosen, text } of recordings) {
        setReading((n) => n + 1)
        const taken = await takeIn(chosen, text)
        if (taken.ok) added++
        const made = took(taken, chosen.file)
        if (made) laidOut.push(made)
        setReading((n) => n - 1)
      }
      offerSheet(laidOut)
      return added
    },
    [tell, report, took, offerSheet],
  )
  const onTakenIn = useCallback(
    (taken: TakenIn) => {
      const made = took(taken)
      if (made) offerSheet([made])
    },
    [took, offerSheet],
  )
  /** Takes in the copy that was made of a recording which could not be read. */
  const addCopy = useCallback(
    async (file: File, fromHdr: boolean) => {
      const made = took(await takeIn({ file, handle: null }, null, { copied: { fromHdr } }))
      if (made) offerSheet([made])
    },
    [took, offerSheet],
  )
  const dismiss = useCallback((id: string) => setProblems((all) => all.filter((p) => p.id !== id)), [])
  return {
    add,
    addCopy,
    onTakenIn,
    reading,
    problems,
    dismiss,
    backup,
    doneWithBackup: useCallback(() => setBackup(null), []),
  }
}
