import { SpotPage } from '@/features/spot/SpotPage'

export const metadata = { title: 'Spot' }

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <SpotPage id={decodeURIComponent((await params).id)} />
}
