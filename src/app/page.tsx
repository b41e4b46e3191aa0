import { ShelfPage } from '@/features/shelf/ShelfPage'

export const metadata = { title: 'Shelf' }

export default function Page() {
  return <ShelfPage />
}
