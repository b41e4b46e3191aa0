import { OutboxPage } from '@/features/outbox/OutboxPage'

export const metadata = { title: 'Outbox' }

export default function Page() {
  return <OutboxPage />
}
