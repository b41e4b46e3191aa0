'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import ButtonBase from '@mui/material/ButtonBase'
import Checkbox from '@mui/material/Checkbox'
import Divider from '@mui/material/Divider'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Tooltip from '@mui/material/Tooltip'
import TextField from '@mui/material/TextField'
import { useLiveQuery } from 'dexie-react-hooks'
import { useSnackbar } from 'notistack'
import { useEffect, useMemo, useState } from 'react'
import type { ArrangementFault } from '@/core/layout/arrangementChanges'
import type { SuitedLayout } from '@/core/compose/suitedLayouts'
import { picturesOfLayouts, type Layout } from '@/core/model/layout'
import { changeKept, kept as keptOf } from '@/store/rack'
import { keptRecipes } from '@/store/recipes'
import { Ticket } from '@/ui/Ticket'
import { fonts, palette, textSize } from '@/ui/theme'
import { withIdsOf } from '@/core/layout/withIdsOf'
import { applyLayout, chosenAs, idsInUse, setAdapts, type Chosen } from '@/edit/layouts'
import { applyBrand, applyRecipe, picturesOfRecipe } from '@/edit/recipes'
import { useBenchContext, useHighlight, useLayout, useCalmParts } from '../benchContext'
import { bringImages } from '../bringImages'
import { KeepLayoutDialog } from './KeepLayoutDialog'
import { KeepRecipeDialog } from './KeepRecipeDialog'
import { MIN_SHOTS, LeapfrogDialog } from './LeapfrogDialog'
import { LayoutPicture } from './LayoutPicture'
import { useSuited } from './useSuited'
import { useTrial } from './useTrial'
import { wording } from './wording'

/** The arrangement in use: try others on the footage by pointing at them, take one, keep this one. */
export function LayoutMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [dialog, setDialog] = useState<'layout' | 'recipe' | 'leapfrog' | null>(null)
  const layout = useLayout()
  return (
    <>
      <Button
        onClick={(e) => setAnchor(e.currentTarget.closest('section'))}
        aria-haspopup="dialog"
        title={wording.layout(layout.name)}
        sx={{ minWidth: 0, maxWidth: 190 }}
      >
        <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {wording.layout(layout.name)}
        </Box>
      </Button>
      {anchor && (
        <Layouts
          anchor={anchor}
          onClose={() => setAnchor(null)}
          onDialog={(what) => {
            setAnchor(null)
            setDialog(what)
          }}
        />
      )}
      {dialog === 'layout' && <KeepLayoutDialog onClose={() => setDialog(null)} />}
      {dialog === 'recipe' && <KeepRecipeDialog onClose={() => setDialog(null)} />}
      {dialog === 'leapfrog' && <LeapfrogDialog onClose={() => setDialog(null)} />}
    </>
  )
}

function Layouts({
  anchor,
  onClose,
  onDialog,
}: {
  anchor: HTMLElement
  onClose: () => void
  onDialog: (what: 'layout' | 'recipe' | 'leapfrog') => void
}) {
  const bench = useBenchContext()
  const { session } = bench
  const { passage, layout } = useCalmParts()
  const { passages, brandId } = useHighlight()
  const recipes = useLiveQuery(keptRecipes)
  const brands = useLiveQuery(() => keptOf('brand'))
  const { enqueueSnackbar } = useSnackbar()
  const kept = useLiveQuery(() => keptOf('layout'))
  const tryOut = useTrial()
  const alone = passages.every((p) => p.id === passage.id || p.layoutId !== layout.id)
  const [all, setAll] = useState(true)
  const { suited, hold } = useSuited()
  const starting = useMemo(() => suited.map(suitedChoice), [suited])
  const own = useMemo(() => (kept ?? []).map((k) => keptChoice(k, layout)), [kept, layout])
  // What a kept layout shows behind its panels is there before it is tried.
  useEffect(() => void (kept && bringImages(bench, picturesOfLayouts(kept))), [bench, kept])
  const base = kept?.find((k) => k.id === layout.basedOn)
  const changed = base !== undefined && !sameArrangement(withIdsOf(base, idsInUse(layout)), layout)
  const take = (chosen: Chosen) => {
    tryOut(null)
    applyLayout(session, passage.id, chosen, all || alone)
    onClose()
  }
  const grid = (choices: readonly Choice[], label: string) => (
    <Box
      role="group"
      aria-label={label}
      onMouseEnter={hold}
      onFocus={hold}
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, minmax(0, 1fr))', gap: 1 }}
    >
      {choices.map(({ purpose, id, why, ...chosen }) => (
        <Box key={id} sx={{ display: 'grid', alignContent: 'start' }}>
          <ButtonBase
            aria-describedby={why ? `why-${id}` : undefined}
            title={why ? `${purpose}. ${why}.` : purpose}
            onMouseEnter={() => tryOut(chosen)}
            onFocus={() => tryOut(chosen)}
            onMouseLeave={() => tryOut(null)}
            onBlur={() => tryOut(null)}
            onClick={() => take(chosen)}
            sx={{
              display: 'grid',
              justifyItems: 'center',
              alignContent: 'start',
              rowGap: 1,
              p: 1.5,
              borderRadius: 1,
              '&:hover, &:focus-visible': { bgcolor: palette.leafTint },
              ...(chosen.name === layout.name && { boxShadow: `inset 0 0 0 1.5px ${palette.leaf}` }),
            }}
          >
            <LayoutPicture layout={chosen} height={92} />
            <Box
              sx={{
                fontFamily: fonts.text,
                fontSize: textSize.small,
                lineHeight: 1.2,
                textAlign: 'center',
                maxWidth: '100%',
                overflowWrap: 'anywhere',
              }}
            >
              {chosen.name}
            </Box>
          </ButtonBase>
          {why && (
            <Box
              id={`why-${id}`}
              sx={{ px: 1.5, fontSize: textSize.small, lineHeight: 1.2, textAlign: 'center', color: palette.inkSoft }}
            >
              {why}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  )
  return (
    <Ticket label={wording.layouts} anchor={anchor} onClose={onClose} side="beside" width={560} gap={2}>
      <FormControlLabel
        title={wording.adaptsMeans}
        control={
          <Checkbox
            size="small"
            checked={layout.adapts === true}
            onChange={(_, adapts) => setAdapts(session, { layoutId: layout.id, adapts })}
          />
        }
        label={wording.adapts}
        slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
      />
      {!alone && (
        <FormControlLabel
          control={<Checkbox size="small" checked={!all} onChange={(_, only) => setAll(!only)} />}
          label={wording.forThisPassageAlone}
          slotProps={{ typography: { sx: { fontSize: textSize.note } } }}
        />
      )}
      {recipes && recipes.length > 0 && (
        <>
          <Box role="group" aria-label={wording.recipes} sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }}>
            {recipes.map((r) => (
              <Button
                key={r.recipe.id}
                title={`${r.setup ? wording.setupOfName(r.setup.name) : ''}layout “${r.layout.name}”${r.brand ? `, ${r.brand.name}` : ''}`}
                onClick={() => {
                  void bringImages(bench, picturesOfRecipe(r)).then(() =>
                    applyRecipe(session, { passageId: passage.id, whole: r }),
                  )
                  onClose()
                }}
              >
                {r.recipe.name}
              </Button>
            ))}
          </Box>
          <Divider />
        </>
      )}
      {own.length > 0 && (
        <>
          {grid(own, wording.keptLayouts)}
          <Divider />
        </>
      )}
      {grid(starting, wording.startingLayouts)}
      <Divider />
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        {brands && brands.length > 0 && (
          <TextField
            select
            size="small"
            label={wording.brand}
            value={brands.some((b) => b.id === brandId) ? brandId : ''}
            onChange={(e) => applyBrand(session, { brand: brands.find((b) => b.id === e.target.value) ?? null })}
            sx={{ minWidth: 120 }}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">{wording.none}</MenuItem>
            {brands.map((b) => (
              <MenuItem key={b.id} value={b.id}>
                {b.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button onClick={() => onDialog('layout')}>{wording.keepThisLayout}</Button>
        <Button onClick={() => onDialog('recipe')}>{wording.keepAsARecipeButton}</Button>
        <Tooltip
          title={
            passages.length >= MIN_SHOTS ? wording.passagesTakeTurnsInTwo : wording.passagesTakeTurnsInTwoOr(MIN_SHOTS)
          }
        >
          <span>
            <Button disabled={passages.length < MIN_SHOTS} onClick={() => onDialog('leapfrog')}>
              {wording.leapfrogButton}
            </Button>
          </span>
        </Tooltip>
        {base && changed && (
          <Button
            onClick={() => {
              void changeKept('layout', base.id, { arrangement: layout.arrangement, perShape: layout.perShape }).then(
                () => enqueueSnackbar(wording.isChangedHighlightsThatUsed(base.name)),
              )
              onClose()
            }}
          >
            {wording.changeForLater(base.name)}
          </Button>
        )}
      </Box>
    </Ticket>
  )
}

/** `why`: why it does not suit; null when it does. */
type Choice = Chosen & { id: string; purpose: string; why: string | null }

/** What a layout would do that it should not, in a few words. */
const WHY: Readonly<Record<ArrangementFault, string>> = {
  missing: wording.lacksARegion,
  repeats: wording.showsTheSameTwice,
  'head-cut': wording.wouldCutAFace,
  'read-cut': wording.wouldCutWhatIsRead,
  'focus-cut': wording.wouldCutTheFocus,
  twice: wording.showsAFaceTwice,
  small: wording.tooSmallToRead,
  enlarged: wording.tooMuchEnlarged,
  words: wording.noRoomForWords,
}

function suitedChoice(suited: SuitedLayout): Choice {
  const {
    starting: { id, purpose },
    faults: [fault],
  } = suited
  const why = fault ? WHY[fault] : null
  return { id, purpose, why, ...chosenAs(suited) }
}

function keptChoice(kept: Layout, layout: Layout): Choice {
  return {
    id: kept.id,
    purpose: kept.tags.join(', ') || wording.keptByYou,
    name: kept.name,
    basedOn: kept.id,
    adapts: kept.adapts === true,
    why: null,
    ...withIdsOf(kept, idsInUse(layout)),
  }
}

function sameArrangement(
  a: Pick<Layout, 'arrangement' | 'perShape'>,
  b: Pick<Layout, 'arrangement' | 'perShape'>,
): boolean {
  const content = ({ arrangement, perShape }: Pick<Layout, 'arrangement' | 'perShape'>) =>
    JSON.stringify([arrangement.tree, arrangement.insets, arrangement.backdrop, perShape])
  return content(a) === content(b)
}
