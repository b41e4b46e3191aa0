import { WeekPage } from '@/features/outbox/week/WeekPage'

export default function Page() {
  return <WeekPage />
}
