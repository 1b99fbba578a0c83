import type { SiteRecord } from './record.ts'

const escaped = (text: string): string =>
  text
    // What XML 1.0 does not allow at all: all but its Char (2.2), halves of surrogate pairs among it.
    .replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, ' ')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll('\n', '&#10;')

const attributes = (of: Readonly<Record<string, string | number>>): string =>
  Object.entries(of)
    .map(([name, value]) => ` ${name}="${escaped(String(value))}"`)
    .join('')

/**
 * The checks of a record with their results as JUnit XML: a suite for each camera, a case for each check. What was never
 * run, or under other settings, is skipped.
 *
 * Source: the XML schema of JUnit reports that ships with Apache Ant and the xUnit plugin of build servers (from memory).
 */
export function junitOf({ site, checks, madeAt }: SiteRecord): string {
  const suites = site.cameras.map((camera) => {
    const own = checks.filter((c) => c.camera === camera.id)
    const isSkipped = (c: (typeof own)[number]): boolean => !c.result?.current
    const isFailed = (c: (typeof own)[number]): boolean =>
      c.result?.current === true && !c.result.passed
    const cases = own.map((c) => {
      const detection = camera.detections.find(({ detection: d }) => d.id === c.detection)
      const of = attributes({
        classname: `${camera.name}.${detection?.detection.name ?? c.detection}`,
        name: c.name,
        time: 0
      })
      if (isSkipped(c)) return `    <testcase${of}><skipped/></testcase>`
      if (isFailed(c))
        return `    <testcase${of}><failure${attributes({ message: c.result!.sentence, type: c.expects })}/></testcase>`
      return `    <testcase${of}/>`
    })
    const heading = attributes({
      name: camera.name,
      tests: own.length,
      failures: own.filter(isFailed).length,
      errors: 0,
      skipped: own.filter(isSkipped).length,
      time: 0,
      timestamp: new Date(madeAt).toISOString().slice(0, 19)
    })
    return [`  <testsuite${heading}>`, ...cases, '  </testsuite>'].join('\n')
  })
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites${attributes({ name: site.site.name })}>`,
    ...suites,
    '</testsuites>',
    ''
  ].join('\n')
}
