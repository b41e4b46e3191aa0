'use client'

import CssBaseline from '@mui/material/CssBaseline'
import { ThemeProvider } from '@mui/material/styles'
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter'
import { SnackbarProvider } from 'notistack'
import type { ReactNode } from 'react'
import { theme } from './theme'

/** Theme, styles and messages around every screen. */
export function AppProviders({ children, nonce }: { children: ReactNode; nonce: string | undefined }) {
  return (
    <AppRouterCacheProvider options={{ key: 'b', ...(nonce !== undefined && { nonce }) }}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <SnackbarProvider
          maxSnack={4}
          anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
          autoHideDuration={6000}
        >
          {children}
        </SnackbarProvider>
      </ThemeProvider>
    </AppRouterCacheProvider>
  )
}
