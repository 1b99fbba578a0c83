import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from './test.ts'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** What axe (general accessibility checker, WCAG 2.2 A and AA rules) finds serious or critical on the page. */
export const serious = (page: Page): Promise<string[]> => findings(page, ['serious', 'critical'])

/** What it finds at all. */
export const anything = (page: Page): Promise<string[]> =>
  findings(page, ['minor', 'moderate', 'serious', 'critical'])

async function findings(page: Page, impacts: readonly string[]): Promise<string[]> {
  await page.waitForTimeout(600) // short motion has ended; half-faded colours are no finding
  await page.evaluate(axe)
  return page.evaluate(async (counted) => {
    const { axe: checker } = window as unknown as {
      axe: {
        run(options: object): Promise<{
          violations: {
            id: string
            impact: string
            nodes: { target: string[]; failureSummary: string }[]
          }[]
        }>
      }
    }
    const { violations } = await checker.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
    })
    return violations
      .filter((v) => counted.includes(v.impact))
      .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} ${n.failureSummary}`))
  }, impacts)
}
