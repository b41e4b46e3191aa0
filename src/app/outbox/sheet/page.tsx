import { ContactSheet } from '@/features/batch/ContactSheet'

export default function Page() {
  return <ContactSheet />
}
