'use client'

import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { GLOSSARY, helpFor, type GlossaryWord } from './helpWords'
import { palette, textSize } from './theme'

/** What the screen at an address is for, what can be done there, and what Brimble’s words mean. */
export function HelpDialog({ path, onClose }: { path: string; onClose: () => void }) {
  const { name, purpose, steps, hasKeys } = helpFor(path)
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>{`Help: ${name}`}</DialogTitle>
      <DialogContent tabIndex={0} role="document" sx={{ fontSize: textSize.body }}>
        <Box component="p" sx={{ mt: 0 }}>
          {purpose}
        </Box>
        <Box component="ol" aria-label="What you can do here" sx={{ pl: 5, display: 'grid', rowGap: 1.5 }}>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </Box>
        {hasKeys && <p>Press ? for this screen’s keys.</p>}
        <Box component="h3" sx={{ fontSize: textSize.lead, mt: 5, mb: 2 }}>
          Words
        </Box>
        <Box
          component="dl"
          sx={{ m: 0, display: 'grid', gridTemplateColumns: '92px 64px 1fr', rowGap: 2, alignItems: 'center' }}
        >
          {GLOSSARY.map((word) => (
            <GlossaryLine key={word.word} {...word} />
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}

function GlossaryLine({ word, meaning, drawn }: GlossaryWord) {
  return (
    <>
      <Box component="dt" sx={{ fontWeight: 700 }}>
        {word}
      </Box>
      <Box component="dd" sx={{ m: 0, gridColumn: drawn ? undefined : '2 / 4' }}>
        {drawn ? <Drawing {...drawn} /> : meaning}
      </Box>
      {drawn && (
        <Box component="dd" sx={{ m: 0 }}>
          {meaning}
        </Box>
      )}
    </>
  )
}

/** Sides of drawings, px. */
const SIDES = { wide: { width: 48, height: 27 }, tall: { width: 22, height: 39 } } as const

function Drawing({ kind, parts }: NonNullable<GlossaryWord['drawn']>) {
  return (
    <svg {...SIDES[kind]} viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden style={{ display: 'block' }}>
      <rect width="100" height="100" fill={palette.mat} />
      {parts.map(({ isMeant, ...place }, n) => (
        <rect key={n} {...place} fill={isMeant ? palette.leaf : palette.line} />
      ))}
    </svg>
  )
}
