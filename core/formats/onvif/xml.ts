import { coded, said } from '../../messages/said.ts'
import { XMLParser } from 'fast-xml-parser'
import { SyntaxValidator } from 'fast-xml-validator'
import { InputError } from '../../errors.ts'

/** An element as it was read: its name without prefix, attributes, children in order, and text. */
export interface Element {
  name: string
  attributes: Readonly<Record<string, string>>
  children: readonly Element[]
  text: string
}

export type Attributes = Record<string, string | number | boolean | undefined>

const named: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&apos;'
}
const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => named[c]!)

/** Writes an element; children are elements already written, or text given through `content`. */
export function xml(name: string, attributes: Attributes = {}, ...children: string[]): string {
  const list = Object.entries(attributes).flatMap(([key, value]) =>
    value === undefined ? [] : ` ${key}="${escape(String(value))}"`
  )
  return children.length
    ? `<${name}${list.join('')}>${children.join('')}</${name}>`
    : `<${name}${list.join('')}/>`
}

export const content = (text: string | number | boolean): string => escape(String(text))

/** More than this is no answer of a device, but an attack or an error. */
export const MAX_XML = 2 * 2 ** 20

/** Answers of real devices have some thousand elements; to read ten times as many takes long enough to be felt. */
const MAX_ELEMENTS = 60_000
const MAX_DEPTH = 100

/** @throws InputError for what would take too long to read, or is nested deeper than anything of the standard */
function checkExtent(text: string, place: string): void {
  let [elements, depth] = [0, 0]
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) {
    const next = text.charCodeAt(at + 1)
    if (next === 47) depth--
    else if (next !== 33 && next !== 63) {
      elements++
      const end = text.indexOf('>', at)
      if (end < 0 || text.charCodeAt(end - 1) !== 47) depth++
    }
    if (elements > MAX_ELEMENTS)
      throw new InputError(place, said('formats.hasMoreThanElements', MAX_ELEMENTS))
    if (depth > MAX_DEPTH)
      throw new InputError(place, said('formats.isNestedMoreThanDeep', MAX_DEPTH))
  }
}

type Node = { ':@'?: Record<string, string>; '#text'?: string | number } & Record<string, unknown>

const options = {
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: true
}
const parser = new XMLParser({ ...options, htmlEntities: true })
/** Tables of entities are made at each reading, which takes longer than the rest: for texts without any. */
const plainParser = new XMLParser({ ...options, processEntities: false })

function elementOf(node: Node): Element | null {
  const name = Object.keys(node).find((key) => key !== ':@' && key !== '#text')
  if (!name || name.startsWith('?')) return null
  const inner = node[name] as Node[]
  return {
    name,
    attributes: node[':@'] ?? {},
    children: inner.flatMap((child) => elementOf(child) ?? []),
    text: inner
      .map((child) => (child['#text'] === undefined ? '' : String(child['#text'])))
      .join('')
  }
}

/**
 * A document's bytes as text, in the encoding that its mark or its declaration names; UTF-8 where it names none, or one
 * that nobody knows. Source: XML 1.0, appendix F (from memory).
 */
export function xmlText(bytes: Uint8Array): string {
  const [a, b] = bytes
  const head = String.fromCharCode(...bytes.subarray(0, 200))
  const named =
    a === 0xfe && b === 0xff
      ? 'utf-16be'
      : a === 0xff && b === 0xfe
        ? 'utf-16le'
        : /^(?:\xef\xbb\xbf)?\s*<\?xml[^>]*\sencoding\s*=\s*["']([\w.:-]+)["']/.exec(head)?.[1]
  try {
    return new TextDecoder(named ?? 'utf-8').decode(bytes)
  } catch {
    return new TextDecoder().decode(bytes)
  }
}

/**
 * Reads a document to its root element.
 *
 * @throws InputError when it is not well-formed, is cut off, is too large, or declares a document type: entities of its
 *   own could make it grow without end or read files
 */
export function readXml(text: string, place = coded('places.answer')): Element {
  if (text.length > MAX_XML)
    throw new InputError(place, said('formats.isLargerThanMb', MAX_XML / 2 ** 20))
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    throw new InputError(place, said('formats.declaresADocumentTypeThat'))
  checkExtent(text, place)
  try {
    SyntaxValidator.validate(text)
  } catch (error) {
    const { line, message } = error as Error & { line: number }
    throw new InputError(place, said('formats.isNotWellFormedXmlLine', line, message))
  }
  const root = nodesOf(text, place).flatMap((node) => elementOf(node) ?? [])[0]
  if (!root) throw new InputError(place, said('formats.hasNoElementInIt'))
  return root
}

/** The parser sees some things that the validator passes over. */
function nodesOf(text: string, place: string): Node[] {
  try {
    return (text.includes('&') ? parser : plainParser).parse(text) as Node[]
  } catch (error) {
    throw new InputError(place, said('formats.isNotWellFormedXml', (error as Error).message))
  }
}

/** The first child of that name, or undefined. */
export const child = (element: Element | undefined, name: string): Element | undefined =>
  element?.children.find((c) => c.name === name)

export const children = (element: Element | undefined, name: string): Element[] =>
  element?.children.filter((c) => c.name === name) ?? []

/** Follows a path of names. */
export const down = (element: Element | undefined, ...names: string[]): Element | undefined =>
  names.reduce<Element | undefined>((e, name) => child(e, name), element)

/** The text at a path. @throws InputError naming the path when it is not there */
export function textAt(element: Element | undefined, place: string, ...names: string[]): string {
  const found = down(element, ...names)
  if (!found) throw new InputError(place, said('formats.hasNo', names.join('/')))
  return found.text
}
