import '@fontsource-variable/instrument-sans/index.css'
import '@fontsource-variable/jetbrains-mono/index.css'
import type { Metadata } from 'next'
import { headers } from 'next/headers'
import type { ReactNode } from 'react'
import { AtWork } from './AtWork'
import { Bin } from '@/shared/bin/BinButton'
import { NotKept } from '@/shared/NotKept'
import { DropAnywhere } from '@/features/shelf/DropAnywhere'
import { AppProviders } from '@/ui/AppProviders'

export const metadata: Metadata = {
  title: { default: 'Brimble', template: '%s · Brimble' },
  description: 'Cut highlights from recordings and rebuild them as stacked vertical video.',
}

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined
  return (
    <html lang="en">
      <body>
        <AppProviders nonce={nonce}>
          <AtWork />
          <NotKept />
          <Bin />
          <DropAnywhere />
          {children}
        </AppProviders>
      </body>
    </html>
  )
}
