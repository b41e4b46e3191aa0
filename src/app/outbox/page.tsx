import { OutboxPage } from '@/features/outbox/OutboxPage'

export default function Page() {
  return <OutboxPage />
}
