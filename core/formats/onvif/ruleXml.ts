import { coded, said } from '../../messages/said.ts'
import { InputError } from '../../errors.ts'
import type { Point } from '../../geometry/shapes.ts'
import { ruleType } from '../../kinds/rules.ts'
import type { Rule } from './rule.ts'
import { child, children, xml, type Element } from './xml.ts'

/** A rule as an element, for CreateRules and ModifyRules. */
export function ruleXml({ name, type, simple, points }: Rule): string {
  const items = Object.entries(simple).map(([Name, Value]) => xml('tt:SimpleItem', { Name, Value }))
  const vertices = points.map(([x, y]) =>
    xml('tt:Point', { x: Math.round(x * 1e5) / 1e5, y: Math.round(y * 1e5) / 1e5 })
  )
  const shape = points.length
    ? [
        type === 'tt:LineDetector'
          ? xml('tt:ElementItem', { Name: 'Segments' }, xml('tt:Polyline', {}, ...vertices))
          : xml('tt:ElementItem', { Name: 'Field' }, xml('tt:Polygon', {}, ...vertices))
      ]
    : []
  return xml('tan:Rule', { Name: name, Type: type }, xml('tt:Parameters', {}, ...items, ...shape))
}

/** @throws InputError when the element is no rule */
export function readRule(element: Element): Rule {
  const { Name: name, Type: type } = element.attributes
  if (!name || !type) throw new InputError(coded('places.rule'), said('formats.hasNoNameOrNo'))
  const parameters = child(element, 'Parameters')
  const simple = Object.fromEntries(
    children(parameters, 'SimpleItem').map(({ attributes }) => [
      attributes.Name ?? '',
      attributes.Value ?? ''
    ])
  )
  const shape = children(parameters, 'ElementItem').flatMap((item) => item.children)[0]
  const points = children(shape, 'Point').map(({ attributes }): Point => {
    const point: Point = [Number(attributes.x), Number(attributes.y)]
    if (!point.every(Number.isFinite))
      throw new InputError(
        coded('places.ruleOf', name),
        said('formats.hasAVertexAt', attributes.x, attributes.y)
      )
    return point
  })
  return { name, type: ruleType(type), simple, points }
}
