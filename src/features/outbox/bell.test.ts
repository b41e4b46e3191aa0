import { expect, test } from 'vitest'
import { Bell } from './bell'

const soon = () => new Promise((resolve) => setTimeout(resolve, 5))

test('news is heard once, also when it came while nobody listened', async () => {
  const bell = new Bell()
  bell.ring()
  bell.ring()
  await bell.heard()
  let heard = 0
  const next = bell.heard().then(() => heard++)
  await soon()
  expect(heard).toBe(0)
  bell.ring()
  await next
  expect(heard).toBe(1)
})
