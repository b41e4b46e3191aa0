import { BenchPage } from '@/features/bench/BenchPage'

export const metadata = { title: 'Bench' }

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  return <BenchPage id={decodeURIComponent(id)} />
}
