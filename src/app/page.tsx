import { ShelfPage } from '@/features/shelf/ShelfPage'

export const metadata = { title: 'Shelf · Brimble' }

export default function Page() {
  return <ShelfPage />
}
