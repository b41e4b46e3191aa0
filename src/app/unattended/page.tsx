import { UnattendedPage } from '@/features/unattended/UnattendedPage'

export default function Page() {
  return <UnattendedPage />
}
