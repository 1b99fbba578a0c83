/**
 * Lint rule: no text that people read stands outside `core/messages/`. What it takes for such a text: letters between
 * tags; a literal in an attribute that is read out or shown; a literal of several words anywhere else. Left out are
 * faults for whoever programs (`new Error`), lines of a log, and what other languages are written in: SQL, styles,
 * selectors, the commands of a terminal.
 */

/** Attributes of elements and components that are shown or read out. */
const SHOWN = new Set([
  'aria-label',
  'aria-description',
  'aria-roledescription',
  'alt',
  'title',
  'label',
  'placeholder',
  'description',
  'content',
  'okText',
  'cancelText',
  'suffix',
  'prefix',
  'addonAfter',
  'unit',
  'text'
])
/** Of them, those that properties of objects are called by as well. */
const NAMED = new Set(['title', 'label', 'placeholder', 'description', 'okText', 'cancelText'])
/** Attributes whose texts are no language. */
const NOT_READ =
  /^(class(Name)?|style|d|viewBox|transform|points|id|to|href|src|type|sx|size|strokeDasharray|gridArea|font|fontFamily|rel|srcSet|sizes)$/

const WORDS = /[A-Za-z’']{2,},? [A-Za-z’']{2,}/
/** What joins names to a text. */
const JOINS = /^ (and|or|to|of|with|at|by|from) $/
const anyOf = (flags, ...parts) => new RegExp(parts.map((part) => part.source).join('|'), flags)
const SQL = anyOf(
  '',
  /\b(SELECT|START TRANSACTION|INSERT INTO|UPDATE|DELETE FROM|CREATE|ALTER|WHERE|VALUES|LIMIT)\b/,
  /\b(ORDER BY|GROUP BY|FORCE INDEX|STRAIGHT_JOIN|IS NULL|FIELD\(|LOCK|SHOW|SET|AND|OR)\b/,
  /\bIN \(|^\(fired_at|\bJSON_TABLE\(/,
  // A list of columns.
  /^[a-z_.]+(, [a-z_.]+)+(,|$)/
)
const NO_LANGUAGE = anyOf(
  'i',
  // Styles and selectors.
  /^\s*(@|body\{|rgba?\(|var\(|calc\(|(\d+px )|ui-monospace|[.#][a-z-])/,
  /^'?Atkinson|\[contenteditable\]/,
  // Headers and addresses.
  /^\s*((private|public), max-age|Digest )|https?:|^-\/\//,
  // Lists for ffmpeg.
  /^(ffconcat|option) /,
  // Patterns of dates.
  /^[YMDHms ,:-]+$/
)

/** Calls whose texts nobody of the site reads. */
const DEVELOPER_CALLS = /^(Error|TypeError|RangeError|SyntaxError|hkdfSync)$/
const LOG_METHODS = /^(trace|debug|info|warn|error|fatal|log)$/

const nameOf = (callee) =>
  callee.type === 'Identifier'
    ? callee.name
    : callee.type === 'MemberExpression' && callee.property.type === 'Identifier'
      ? callee.property.name
      : ''

const isForDevelopers = (node) => {
  for (let at = node.parent; at; at = at.parent) {
    if (at.type === 'NewExpression' && DEVELOPER_CALLS.test(nameOf(at.callee))) return true
    if (at.type === 'CallExpression') {
      if (at.callee.type === 'Identifier' && DEVELOPER_CALLS.test(at.callee.name)) return true
      if (
        at.callee.type === 'MemberExpression' &&
        LOG_METHODS.test(nameOf(at.callee)) &&
        /^(log|logger|console)$/.test(nameOf(at.callee.object))
      )
        return true
    }
    if (at.type === 'JSXAttribute' && NOT_READ.test(String(at.name.name))) return true
    if (at.type === 'TSLiteralType' || at.type === 'ImportDeclaration') return true
    if (/Function|Program|Class/.test(at.type)) return false
  }
  return false
}

/** The attribute or property that a literal is the value of; `text` of one between tags. */
const attributeOf = (node) => {
  for (let at = node.parent, from = node; at; from = at, at = at.parent) {
    if (at.type === 'JSXAttribute') return String(at.name.name)
    if (at.type === 'Property')
      return at.value === from && at.key.type === 'Identifier' && NAMED.has(at.key.name)
        ? at.key.name
        : ''
    // Between tags.
    if (at.type === 'JSXElement' || at.type === 'JSXFragment') return 'text'
    if (
      !/JSXExpressionContainer|ConditionalExpression|LogicalExpression|TemplateLiteral/.test(
        at.type
      )
    )
      return ''
  }
  return ''
}

export default {
  meta: {
    type: 'problem',
    docs: { description: 'Texts that people read are made in core/messages/.' },
    messages: { english: 'A text that people read: make it in core/messages/ ({{text}}).' },
    schema: []
  },
  create(context) {
    const report = (node, text) =>
      context.report({ node, messageId: 'english', data: { text: text.trim().slice(0, 60) } })
    const look = (node, markup) => {
      const text = markup.replace(/<(script|style)\b[\s\S]*?<\/\1>/g, ' ').replace(/<[^>]*>/g, ' ')
      const attribute = attributeOf(node)
      const isShown = SHOWN.has(attribute) && /\p{L}/u.test(text)
      if (
        !isShown &&
        ((!WORDS.test(text) && !JOINS.test(text)) || SQL.test(text) || NO_LANGUAGE.test(text))
      )
        return
      if (!isForDevelopers(node)) report(node, text)
    }
    return {
      JSXText(node) {
        const isKey = node.parent.openingElement?.name.name === 'kbd'
        if (!isKey && /\p{L}/u.test(node.value)) report(node, node.value)
      },
      Literal(node) {
        if (typeof node.value === 'string') look(node, node.value)
      },
      TemplateLiteral(node) {
        if (node.parent.type === 'TaggedTemplateExpression') return
        look(node, node.quasis.map((q) => q.value.cooked).join('0'))
      }
    }
  }
}
