import { ContactSheet } from '@/features/batch/ContactSheet'

export const metadata = { title: 'Contact sheet' }

export default function Page() {
  return <ContactSheet />
}
