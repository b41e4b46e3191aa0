import type { Recording } from '@/core/model/recording'
import { passagePartsFor } from '@/store/highlights'
import { storedFile } from '@/store/recordings'
import { addChosenFile } from '../../shelf/addRecordings'
import type { ChosenFile } from '../../shelf/chosenFiles'
import { probeMessage } from '../../shelf/messages'
import { useBenchContext } from '../benchContext'
import { insertPassage } from './cuts'

/** What went wrong, in words; null when the passage is there. */
type Problem = string | null

/** Puts a passage of another recording after the one that is worked on. */
export function useAddPassage(): { addRecording: (recording: Recording) => Promise<Problem>; addFile: (chosen: ChosenFile) => Promise<Problem> } {
  const { session, player, view, files } = useBenchContext()
  const addRecording = async (recording: Recording): Promise<Problem> => {
    const found = await storedFile(recording.id)
    if (!found.ok) return found.reason === 'needs-permission' ? `The browser wants your permission to read “${recording.fileName}” again: open one of its highlights first.` : `“${recording.fileName}” is missing. Open one of its highlights and choose the file again.`
    files.set(recording.id, found.file)
    const { passage, setup, layout } = await passagePartsFor(session.value, recording)
    session.extend((draft) => {
      if (!draft.recordings.some((r) => r.id === recording.id)) draft.recordings.push(recording)
      if (setup) draft.setups.push(setup)
      if (layout) draft.layouts.push(layout)
    })
    const opened = await player.open(session.value, files)
    if (!opened.ok) return `“${opened.fileName}” can no longer be read.`
    insertPassage(session, passage, view.getState().passageId)
    return null
  }
  const addFile = async (chosen: ChosenFile): Promise<Problem> => {
    const added = await addChosenFile(chosen)
    return added.ok ? addRecording(added.recording) : probeMessage(added.fileName, added.failure)
  }
  return { addRecording, addFile }
}
