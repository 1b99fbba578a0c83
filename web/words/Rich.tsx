import { Fragment, type ReactNode } from 'react'

/**
 * A text with places in braces, `{who} crosses {line}`, each filled with what is shown there. The text decides the
 * order, so that a sentence stays one message although parts of it can be clicked.
 */
export const Rich = ({
  text,
  parts
}: {
  text: string
  parts: Readonly<Record<string, ReactNode>>
}): ReactNode =>
  text
    .split(/(\{\w+\})/)
    .map((piece, i) => (
      <Fragment key={i}>{/^\{\w+\}$/.test(piece) ? parts[piece.slice(1, -1)] : piece}</Fragment>
    ))
