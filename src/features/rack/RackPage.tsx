'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useRef, useState, type DragEvent, type ReactNode } from 'react'
import { kept } from '@/store/rack'
import { keptSetups } from '@/store/setups'
import { palette, textSize } from '@/ui/theme'
import { TopBar } from '@/ui/TopBar'
import { BrandDialog } from './BrandDialog'
import { BrandRows } from './BrandRows'
import { LayoutRows } from './LayoutRows'
import { OutletDialog } from './OutletDialog'
import { OutletRows } from './OutletRows'
import { RecipeRows } from './RecipeRows'
import { SetupRows } from './SetupRows'
import { useRackFiles } from './useRackFiles'

/** What is kept for next time. */
export function RackPage() {
  const { write, read } = useRackFiles()
  const chooser = useRef<HTMLInputElement>(null)
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
        <Button onClick={() => chooser.current?.click()}>Import…</Button>
        <Button onClick={() => void exportAll()}>Export all</Button>
        <input
          ref={chooser}
          type="file"
          accept=".json,application/json"
          multiple
          hidden
          aria-label="Files of a rack"
          onChange={(e) => void read([...(e.target.files ?? [])]).finally(() => (e.target.value = ''))}
        />
      </TopBar>
      <Box component="main" sx={{ width: '100%', maxWidth: 1100, mx: 'auto', px: 4, py: 4 }}>
        <Section
          title="Setups"
          purpose="Where things are in your recordings. One that is recognised in a new recording is used for it by itself."
          empty={
            <>
              None kept yet. On the Bench, once the regions are right, open the menu <strong>Setup</strong> over the
              Frame and choose “Keep these regions as a setup”. Files that somebody sent you come in with Import.
            </>
          }
        >
          <SetupRows onExport={write} />
        </Section>
        <Section
          title="Layouts"
          purpose="Where things go. Every highlight begins with the starting layouts; these are your own."
          empty={
            <>
              None kept yet. On the Bench, open <strong>Layout</strong> over the Shapes and choose “Keep this layout”.
            </>
          }
        >
          <LayoutRows onExport={write} />
        </Section>
        <Section
          title="Recipes"
          purpose="Setup, layout, brand and shapes that belong together: applied in one action, or by themselves where a setup is recognised."
          empty={
            <>
              None kept yet. On the Bench, open <strong>Layout</strong> over the Shapes and choose “Keep as a recipe”.
            </>
          }
        >
          <RecipeRows onExport={write} />
        </Section>
        <Section
          title="Brands"
          purpose="Colours, fonts and pictures that your things have in common."
          empty={<>None kept yet.</>}
          action={<Button onClick={() => setMaking('brand')}>New brand…</Button>}
        >
          <BrandRows onExport={write} />
        </Section>
        <Section
          title="Outlets"
          purpose="Where files are headed: shape, limits, and what is laid over the picture there. They change; so can these."
          empty={<>None kept.</>}
          action={<Button onClick={() => setMaking('outlet')}>New outlet…</Button>}
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
