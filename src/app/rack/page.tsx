import { RackPage } from '@/features/rack/RackPage'

export const metadata = { title: 'Rack' }

export default function Page() {
  return <RackPage />
}
