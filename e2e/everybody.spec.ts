import { anything } from './axe.ts'
import { expect, test, type Page } from './test.ts'

/** What holds for every place: both themes, both sizes, magnified, by keyboard alone. */
const PLACES = [
  '/site',
  '/devices',
  '/bench/slipway?detection=quay-edge',
  '/bench/quay-path?back=true',
  '/arming',
  '/actions',
  '/prove',
  '/prove/walk?camera=slipway',
  '/watch',
  '/watch/search',
  '/handover',
  '/mailbox'
]
const SIZES = { desk: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } }
const DESK_ONLY = /^\/(bench|arming|actions|prove$|mailbox|handover)/

/** Opens a place and waits until it has settled. */
async function open(page: Page, place: string): Promise<void> {
  await page.goto(place)
  await expect(page.locator('main').first()).toBeVisible()
  await expect(page.getByText('Loading…')).toHaveCount(0)
}
async function wear(page: Page, theme: 'day' | 'night'): Promise<void> {
  await page.addInitScript((name) => localStorage.setItem('theme', name), theme)
}

for (const theme of ['day', 'night'] as const)
  for (const [name, size] of Object.entries(SIZES))
    test(`axe finds nothing by ${theme} at the size of a ${name}`, async ({ page }) => {
      test.setTimeout(400_000)
      await page.setViewportSize(size)
      await wear(page, theme)
      const found: Record<string, string[]> = {}
      for (const place of PLACES) {
        if (name === 'phone' && DESK_ONLY.test(place)) continue
        await open(page, place)
        const problems = await anything(page)
        if (problems.length) found[place] = problems
      }
      expect(found).toEqual({})
    })

// WCAG 2.2, 1.4.10 (reflow) asks for 320 CSS px, which the places of a phone have; 1.4.4 for 200 %, from memory: half as
// many CSS px on the same screen.
for (const [what, width, height] of [
  ['at 200 %', 640, 400],
  ['on a small screen', 1024, 768]
] as const)
  test(`${what} nothing of a place is out of reach`, async ({ page }) => {
    test.setTimeout(400_000)
    await page.setViewportSize({ width, height })
    const beside: Record<string, unknown> = {}
    for (const place of PLACES) {
      await open(page, place)
      // What reaches beyond the window must stand in something that scrolls to it.
      const out = await page.evaluate(() => {
        const scrolls = (element: Element | null, way: 'overflowX' | 'overflowY'): boolean => {
          for (let e = element; e && e !== document.documentElement; e = e.parentElement)
            if (/auto|scroll/.test(getComputedStyle(e)[way])) return true
          const { scrollWidth, scrollHeight } = document.documentElement
          return way === 'overflowX' ? scrollWidth > innerWidth : scrollHeight > innerHeight
        }
        return [...document.querySelectorAll('button, a, input, [role=combobox], [tabindex="0"]')]
          .filter((e) => {
            const box = e.getBoundingClientRect()
            const style = getComputedStyle(e)
            if (!box.width || !box.height || style.visibility === 'hidden') return false
            if (e.closest('[aria-hidden=true]')) return false
            return (
              ((box.right > innerWidth + 1 || box.left < -1) &&
                !scrolls(e.parentElement, 'overflowX')) ||
              ((box.bottom > innerHeight + 1 || box.top < -1) &&
                !scrolls(e.parentElement, 'overflowY'))
            )
          })
          .map((e) => e.textContent.trim() || e.getAttribute('aria-label') || e.outerHTML)
      })
      if (out.length) beside[place] = out
    }
    expect(beside).toEqual({})
  })

test('every place is walked through by Tab: focus is seen, and comes to what can be pressed', async ({
  page
}) => {
  test.setTimeout(400_000)
  const unseen: Record<string, string[]> = {}
  for (const place of PLACES) {
    await open(page, place)
    const missed = new Set<string>()
    let steps = 0
    for (; steps < 400; steps++) {
      await page.keyboard.press('Tab')
      const at = await page.evaluate(() => {
        const e = document.activeElement
        if (!e || e === document.body) return null
        const shows = (one: Element): boolean => {
          // A handle of hours shows it on the bar drawn in it.
          return [undefined, '::after'].some((part) => {
            const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(one, part)
            return (outlineStyle !== 'none' && outlineWidth !== '0px') || boxShadow !== 'none'
          })
        }
        // Fields show it on the frame around them; shapes of the Bench by how they are drawn.
        const frames = [e, e.parentElement, e.parentElement?.parentElement].filter((f) => f != null)
        const around = e.closest(
          '.ant-select, .ant-picker, .ant-input-affix-wrapper, .ant-input-number, .ant-segmented, .ant-checkbox-wrapper, .ant-switch'
        )
        return {
          seen: e instanceof SVGElement || [...frames, ...(around ? [around] : [])].some(shows),
          name: `${e.tagName} ${e.getAttribute('aria-label') ?? e.textContent.trim().slice(0, 40)} .${e.getAttribute('class')}`
        }
      })
      if (at === null) break
      if (!at.seen) missed.add(at.name)
    }
    // It goes round and out again: nothing holds it.
    expect([place, steps > 5, steps < 400]).toEqual([place, true, true])
    if (missed.size) unseen[place] = [...missed]
  }
  expect(unseen).toEqual({})
})

test('focus stays where it is while lists are read again', async ({ page }) => {
  await open(page, '/watch')
  const sent = await page.request.post('/api/sites/skerrow/triggers', {
    data: { key: `focus-${Date.now()}`, camera: 'waiting-room', detection: 'waiting-room-door' }
  })
  expect(sent.status()).toBe(201)
  const line = page.locator('.alarm-line').filter({ hasText: 'Door after hours' }).first()
  await line.focus()
  const focused = (): Promise<string> =>
    page.evaluate(() => document.activeElement?.textContent ?? '')
  const before = await focused()
  expect(before).toContain('Door after hours')
  // Another alarm comes in above it, and the list is read again twice.
  const other = await page.request.post('/api/sites/skerrow/triggers', {
    data: {
      key: `focus-2-${Date.now()}`,
      camera: 'slipway',
      detection: 'quay-edge',
      direction: 'leftToRight'
    }
  })
  expect(other.status()).toBe(201)
  await expect(page.locator('.alarm-line').filter({ hasText: 'Quay edge' }).first()).toBeVisible()
  for (let i = 0; i < 2; i++)
    await page.waitForResponse((r) => r.url().endsWith('/alarms') && r.status() === 200)
  expect(await focused()).toBe(before)
})

// WCAG 2.2, 2.3.3 (animation from interactions), from memory; what counts as one is read from the Web Animations API.
test('who asks for less motion sees none: in no place, in no menu or dialog', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' })
  await page.addInitScript(() => {
    const moved: string[] = []
    Object.assign(window, { moved })
    for (const kind of ['transitionrun', 'animationstart'])
      document.addEventListener(
        kind,
        () => {
          for (const animation of document.getAnimations()) {
            const { effect } = animation
            const lasts = Number(effect?.getComputedTiming().duration ?? 0)
            if (lasts > 1 && effect instanceof KeyframeEffect)
              moved.push(`${effect.target?.getAttribute('class')} ${lasts} ms`)
          }
        },
        true
      )
  })
  const moved: Record<string, string[]> = {}
  const look = async (where: string): Promise<void> => {
    const seen = await page.evaluate(() => (window as unknown as { moved: string[] }).moved)
    if (seen.length) moved[where] = [...new Set(seen)]
  }
  for (const place of PLACES) {
    await open(page, place)
    await look(place)
  }
  await open(page, '/site')
  await page.getByRole('button', { name: 'Add camera' }).first().click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.locator('button.user').click()
  await page.getByRole('menuitem', { name: 'Sessions' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await look('menus and dialogs')
  expect(moved).toEqual({})
})
