'use client'

import { useEffect, useState } from 'react'
import { wordAreasIn } from '@/core/compose/arrangementIn'
import { isOnAt } from '@/core/compose/whenOn'
import { titlesAt, wordRow } from '@/core/compose/wordSteps'
import { isHung, type HungMark, type PictureMark } from '@/core/model/pictureMark'
import type { Shape } from '@/core/model/shape'
import type { TitleCard } from '@/core/model/words'
import type { Micros } from '@/core/time/micros'
import { useGrowing } from '@/ui/useGrowing'
import { partsOf, useBenchContext, useEditIn, useView } from '../benchContext'
import { MarkBox } from './MarkBox'
import { TitleBox } from './TitleBox'

/** A highlight may have many marks, in many shapes: keys do not wait for all of their boxes. */
const MARKS_AT_ONCE = 8

/** What lies over the picture at the playhead and can be taken hold of. */
export function OverPicture({ shape, shown }: { shape: Shape; shown: boolean }) {
  const { player } = useBenchContext()
  const edit = useEditIn('shapes')
  const passageId = useView((v) => v.passageId)
  const { passage } = partsOf(edit, passageId)
  const { marks, words } = edit.highlight
  const writing = useView((v) => v.writing?.titleId ?? null)
  const [on, setOn] = useState('')
  // While it plays the clock is told twelve times a second; what is on changes seldom.
  useEffect(
    () => player.onPosition((t) => setOn(idsOn(marks, words.titles, t, player.lengthMicros))),
    [player, marks, words.titles],
  )
  const ids = new Set(on.split(' '))
  const hung = marks.filter((m): m is HungMark => isHung(m) && ids.has(m.id))
  const shownMarks = useGrowing(hung.length, MARKS_AT_ONCE)
  const titles = words.titles.filter((t) => ids.has(t.id) || t.id === writing)
  const area = wordAreasIn(edit, passage, shape).titleArea
  return (
    <>
      {hung.slice(0, shownMarks).map((mark) => (
        <MarkBox key={mark.id} mark={mark} shape={shape} shown={shown} />
      ))}
      {titles.map((title, i) => (
        <TitleBox key={title.id} title={title} area={wordRow(area, i, titles.length)} shape={shape} shown={shown} />
      ))}
    </>
  )
}

function idsOn(marks: readonly PictureMark[], titles: readonly TitleCard[], t: Micros, length: Micros): string {
  const at = Math.min(t, length - 1)
  return [...marks.filter((m) => isHung(m) && isOnAt(m, at, length)), ...titlesAt({ titles: [...titles] }, at, length)]
    .map((m) => m.id)
    .join(' ')
}
