import { ShelfPage } from '@/features/shelf/ShelfPage'

export default function Page() {
  return <ShelfPage />
}
