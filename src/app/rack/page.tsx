import { RackPage } from '@/features/rack/RackPage'

export default function Page() {
  return <RackPage />
}
