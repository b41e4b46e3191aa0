'use client'

import { alpha, createTheme } from '@mui/material/styles'

/**
 * How the element that keys go to is shown, whatever lies around it: a green line, and a light one round that for
 * dark ground.
 */
export const focusRing = { outline: '2px solid #2E5E3E', outlineOffset: 1, boxShadow: '0 0 0 5px #FFFFFF' } as const

/** The light table's colours; see docs/design.md. */
export const palette = {
  ink: '#20261F',
  inkSoft: '#5A6056',
  paper: '#F4F2EC',
  sheet: '#FBFAF6',
  line: '#D8D3C5',
  mat: '#2A2B2A',
  leaf: '#2E5E3E',
  leafTint: '#E1EAE0',
  haw: '#B3402C',
  straw: '#C98A1B',
  strawInk: '#855708',
  slate: '#4A6472',
} as const

export const fonts = {
  text: '"Instrument Sans Variable", system-ui, sans-serif',
  numbers: '"JetBrains Mono Variable", ui-monospace, monospace',
} as const

/** Sizes of letters, px, from the smallest that is used to titles of dialogs. */
export const textSize = { tiny: 10, small: 11, note: 12.5, body: 13, lead: 14, title: 16 } as const

/** Sizes of icons, px: in a line of small letters, in a button, by itself. */
export const iconSize = { small: 15, medium: 18, large: 20 } as const

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: palette.leaf, contrastText: '#FFFFFF' },
    error: { main: palette.haw },
    warning: { main: palette.straw },
    info: { main: palette.slate },
    background: { default: palette.paper, paper: palette.sheet },
    text: { primary: palette.ink, secondary: palette.inkSoft },
    divider: palette.line,
  },
  shape: { borderRadius: 4 },
  spacing: 4,
  typography: {
    fontFamily: fonts.text,
    fontSize: textSize.body,
    body1: { fontSize: textSize.lead, lineHeight: 1.4 },
    body2: { fontSize: textSize.body, lineHeight: 1.4 },
    h1: { fontSize: 20, fontWeight: 700 },
    h2: { fontSize: textSize.lead, fontWeight: 700 },
    button: { textTransform: 'none', fontWeight: 600, fontSize: textSize.body },
    caption: { fontSize: textSize.note },
  },
  transitions: {
    duration: {
      shortest: 80,
      shorter: 100,
      short: 120,
      standard: 150,
      complex: 180,
      enteringScreen: 150,
      leavingScreen: 120,
    },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        'html, body': { height: '100%' },
        body: { backgroundColor: palette.paper, overscrollBehavior: 'none' },
        ':focus-visible': focusRing,
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { animationDuration: '0.01ms !important', transitionDuration: '0.01ms !important' },
        },
      },
    },
    // The library takes the outline away from everything that is pressed; menus and lists clip what lies outside.
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: { root: { '&:focus-visible': { ...focusRing, zIndex: 1 } } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, size: 'small', variant: 'outlined', color: 'inherit' },
      styleOverrides: {
        root: { minHeight: 28, padding: '2px 10px', whiteSpace: 'nowrap', lineHeight: 1.4 },
        outlined: {
          backgroundColor: '#FFFFFF',
          borderColor: palette.line,
          '&:hover': { borderColor: palette.inkSoft, backgroundColor: palette.sheet },
        },
      },
    },
    MuiIconButton: { defaultProps: { size: 'small' }, styleOverrides: { root: { borderRadius: 4 } } },
    MuiTooltip: {
      defaultProps: { enterDelay: 500, arrow: false },
      styleOverrides: { tooltip: { backgroundColor: palette.ink, fontSize: textSize.note } },
    },
    MuiMenuItem: {
      styleOverrides: {
        root: {
          minHeight: 30,
          fontSize: textSize.body,
          paddingTop: 4,
          paddingBottom: 4,
          '&:focus-visible': { outlineOffset: -2, boxShadow: 'none' },
        },
      },
    },
    MuiSwitch: {
      styleOverrides: { root: { overflow: 'visible' }, switchBase: { '&:has(:focus-visible)': focusRing } },
    },
    MuiCheckbox: { styleOverrides: { root: { borderRadius: 4, '&:has(:focus-visible)': focusRing } } },
    MuiRadio: { styleOverrides: { root: { '&:has(:focus-visible)': focusRing } } },
    MuiSlider: { styleOverrides: { thumb: { '&.Mui-focusVisible, &:has(:focus-visible)': focusRing } } },
    MuiSelect: {
      defaultProps: { size: 'small' },
      styleOverrides: {
        select: {
          paddingTop: 4,
          paddingBottom: 4,
          fontSize: textSize.body,
          '&:focus-visible': { ...focusRing, boxShadow: 'none' },
        },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: '#FFFFFF' }, notchedOutline: { borderColor: palette.line } },
    },
    MuiDialog: {
      styleOverrides: {
        paper: { backgroundColor: palette.sheet, boxShadow: `0 12px 40px ${alpha(palette.ink, 0.35)}` },
      },
    },
    MuiDialogTitle: { styleOverrides: { root: { fontSize: textSize.title, fontWeight: 700, paddingBottom: 6 } } },
    MuiDialogActions: { styleOverrides: { root: { padding: '8px 24px 16px', gap: 8 } } },
    MuiAlert: { styleOverrides: { root: { fontSize: textSize.body, padding: '2px 12px' } } },
    MuiLinearProgress: { styleOverrides: { root: { height: 6, borderRadius: 3, backgroundColor: palette.line } } },
  },
})
