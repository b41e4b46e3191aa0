import { WeekPage } from '@/features/outbox/week/WeekPage'

export const metadata = { title: 'The week' }

export default function Page() {
  return <WeekPage />
}
