'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useState, type DragEvent, type ReactNode } from 'react'
import { kept } from '@/store/rack'
import { keptSetups } from '@/store/setups'
import { FileButton } from '@/ui/FileButton'
import { palette, textSize } from '@/ui/theme'
import { ScreenHeading } from '@/ui/ScreenHeading'
import { TopBar } from '@/ui/TopBar'
import { BrandDialog } from './BrandDialog'
import { BrandRows } from './BrandRows'
import { LayoutRows } from './LayoutRows'
import { OutletDialog } from './OutletDialog'
import { OutletRows } from './OutletRows'
import { RecipeRows } from './RecipeRows'
import { SetupRows } from './SetupRows'
import { useRackFiles } from './useRackFiles'
import { wording } from './wording'

/** What is kept for next time. */
export function RackPage() {
  const { write, read } = useRackFiles()
  const [making, setMaking] = useState<'brand' | 'outlet' | null>(null)
  const exportAll = async () =>
    write(
      {
        setup: await keptSetups(),
        layout: await kept('layout'),
        brand: await kept('brand'),
        outlet: await kept('outlet'),
        recipe: await kept('recipe'),
      },
      'rack',
    )
  /** Files of a rack are for here; whatever else is dropped goes where it goes on every screen. */
  const onDrop = (event: DragEvent) => {
    const files = [...event.dataTransfer.files]
    if (files.length === 0 || !files.every((f) => /\.json$/i.test(f.name))) return
    event.preventDefault()
    void read(files)
  }
  return (
    <Box onDrop={onDrop} sx={{ display: 'flex', flexDirection: 'column', minHeight: '100dvh' }}>
      <TopBar>
        <FileButton
          label={wording.filesOfARack}
          accept=".json,application/json"
          multiple
          onChosen={(files) => void read(files)}
        >
          {wording.importIt}
        </FileButton>
        <Button onClick={() => void exportAll()}>{wording.exportAll}</Button>
      </TopBar>
      <Box component="main" sx={{ width: '100%', maxWidth: 1100, mx: 'auto', px: 4, py: 4 }}>
        <Box sx={{ mb: 6 }}>
          <ScreenHeading name={wording.rack} purpose={wording.whatYouSaved} />
        </Box>
        <Section
          title={wording.setups}
          purpose={wording.whereThingsAreInYour}
          empty={
            <>
              {wording.noneKeptYetOnThe}
              <strong>{wording.setupCapital}</strong>
              {wording.overTheFrameAndChoose}
            </>
          }
        >
          <SetupRows onExport={write} />
        </Section>
        <Section
          title={wording.layouts}
          purpose={wording.whereThingsGoEveryHighlight}
          empty={
            <>
              {wording.noneKeptYetOnTheBench}
              <strong>{wording.layout}</strong>
              {wording.overTheShapesAndChoose}
            </>
          }
        >
          <LayoutRows onExport={write} />
        </Section>
        <Section
          title={wording.recipes}
          purpose={wording.setupLayoutBrandAndShapes}
          empty={
            <>
              {wording.noneKeptYetOnTheBench}
              <strong>{wording.layout}</strong>
              {wording.overTheShapesAndChooseKeep}
            </>
          }
        >
          <RecipeRows onExport={write} />
        </Section>
        <Section
          title={wording.brands}
          purpose={wording.coloursFontsAndPicturesThat}
          empty={<>{wording.noneKeptYet}</>}
          action={<Button onClick={() => setMaking('brand')}>{wording.newBrandButton}</Button>}
        >
          <BrandRows onExport={write} />
        </Section>
        <Section
          title={wording.outlets}
          purpose={wording.whereFilesAreHeadedShape}
          empty={<>{wording.noneKept}</>}
          action={<Button onClick={() => setMaking('outlet')}>{wording.newOutletButton}</Button>}
        >
          <OutletRows onExport={write} />
        </Section>
      </Box>
      {making === 'brand' && <BrandDialog brand={null} onClose={() => setMaking(null)} />}
      {making === 'outlet' && <OutletDialog outlet={null} onClose={() => setMaking(null)} />}
    </Box>
  )
}

/** One kind of what is kept; the words for an empty place show while the list has nothing in it. */
function Section({
  title,
  purpose,
  empty,
  action,
  children,
}: {
  title: string
  purpose: string
  empty: ReactNode
  action?: ReactNode
  children: ReactNode
}) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 8 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 4, mb: 3 }}>
        <Box sx={{ flex: 1 }}>
          <Box component="h2" sx={{ m: 0, mb: 1, fontSize: 18, fontWeight: 700 }}>
            {title}
          </Box>
          <Box sx={{ fontSize: textSize.body, color: palette.inkSoft }}>{purpose}</Box>
        </Box>
        {action}
      </Box>
      <Box role="list" aria-label={title} sx={{ '&:empty + *': { display: 'block' } }}>
        {children}
      </Box>
      <Box
        sx={{
          display: 'none',
          p: 5,
          border: `1px dashed ${palette.line}`,
          borderRadius: 1,
          fontSize: textSize.body,
          color: palette.inkSoft,
        }}
      >
        {empty}
      </Box>
    </Box>
  )
}
