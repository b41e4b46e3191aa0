import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { watchForErrors } from '../support/brimble'

/** Screens of the demo, and what is opened on each besides every button that says it opens a menu or a dialog. */
const SCREENS: readonly [address: string, opened: readonly string[]][] = [
  ['/', ['Help']],
  ['/rack', ['New brand…', 'New outlet…']],
  ['/outbox', []],
  ['/outbox/sheet', ['Make drafts…', 'Keys']],
  ['/outbox/week', []],
  ['/recording/demo-ridge-cup', ['All keys']],
  ['/highlight/demo-last-gate', ['Compare', 'Versions', 'Keys', 'Render']],
]

/**
 * What axe finds wrong with the screen as it is. Two exceptions: what a menu, a tooltip or a ticket is drawn in lies
 * outside the page's regions (they close when focus goes on), so regions are looked at with nothing open; and the
 * sample of a text style is lettering with a line round it, which axe takes for the letter.
 */
async function faultsOf(page: Page, isOpen: boolean): Promise<string[]> {
  await expect(page.locator('[class*="MuiTooltip-popper"]')).toHaveCount(0)
  const axe = new AxeBuilder({ page }).exclude('[data-sample]')
  if (isOpen) axe.disableRules(['region'])
  const { violations } = await axe.analyze()
  return violations.flatMap(({ id, nodes }) => nodes.map((n) => `${id}: ${n.target.join(' ')} ${n.html.slice(0, 120)}`))
}

async function openDemo(page: Page): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'Open the demo shelf' }).click()
  await expect(page.locator('a[href="/recording/demo-dusk"]').first()).toBeVisible({ timeout: 60_000 })
}

test('no screen, menu or dialog has a fault that axe knows of', async ({ page }) => {
  // Some fifty looks of a second or two each.
  test.setTimeout(480_000)
  const errors = watchForErrors(page)
  await page.emulateMedia({ reducedMotion: 'reduce' })
  await page.goto('/rack')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  expect.soft(await faultsOf(page, false), 'an empty Rack').toEqual([])
  await openDemo(page)
  for (const [address, more] of SCREENS) {
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1)
    await expect(page.getByRole('progressbar')).toHaveCount(0, { timeout: 60_000 })
    expect.soft(await faultsOf(page, false), address).toEqual([])
    // A highlight's findings are there once it was looked through.
    await expect(page.getByRole('button', { name: /^found Checking/ })).toHaveCount(0)
    const menus = await page
      .locator('button[aria-haspopup]:visible:enabled')
      .evaluateAll((all) =>
        all.map((b) => b.getAttribute('aria-label') ?? (b as HTMLElement).innerText.replace(/\s+/g, ' ').trim()),
      )
    for (const name of new Set([...menus, ...more])) {
      // What was found can have changed since the names were read.
      const exactly = /^found /.exec(name)?.[0] ?? name
      await page
        .getByRole('button', { name: exactly, exact: exactly === name })
        .first()
        .click()
      const opened = page.locator('[role=dialog]:visible, [role=menu]:visible')
      await expect(opened.first(), `${address}: ${name}`).toBeVisible()
      expect.soft(await faultsOf(page, true), `${address}: ${name}`).toEqual([])
      await page.keyboard.press('Escape')
      await expect(opened).toHaveCount(0)
    }
  }
  errors.expectNone()
})
