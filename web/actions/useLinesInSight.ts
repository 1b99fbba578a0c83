import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useState, type RefObject } from 'react'

/** Of so few all are there: what is there can be searched by the browser, and printed. */
const FEW = 80
/** Lines out of sight on either side. */
const AROUND = 5

export interface LinesInSight {
  /** Lines that are there, in order, each with the room of those left out before it, in pixels. */
  lines: { index: number; gap: number }[]
  /** The room of those left out after the last one. */
  rest: number
  /** The columns that are drawn: the first, and the one after the last. */
  columns: readonly [number, number]
  /** Lines have the heights that were said, as not all are there to be looked at. */
  isLong: boolean
  /** Brings a line into sight. */
  show: (index: number) => void
}

/**
 * Which lines of a long table are drawn: those in sight, and one that must stay, as it has the focus.
 * @param heightOf a line, in pixels @param table in the element that scrolls
 * @param columns how many, how wide, and where the first begins
 */
export function useLinesInSight(
  count: number,
  heightOf: (index: number) => number,
  keep: number,
  columns: { count: number; width: number; from: number; keep: number },
  table: RefObject<HTMLTableElement | null>
): LinesInSight {
  const [above, setAbove] = useState(0)
  const isLong = count > FEW
  // What the rule warns of is a compiler's memoizing, and none is used.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count,
    enabled: isLong,
    getScrollElement: () => table.current?.parentElement ?? null,
    estimateSize: heightOf,
    useFlushSync: false,
    overscan: AROUND,
    scrollMargin: above,
    rangeExtractor: (range) =>
      [...new Set([...defaultRangeExtractor(range), keep])]
        .filter((index) => index < count)
        .sort((a, b) => a - b)
  })
  const across = useVirtualizer({
    count: columns.count,
    enabled: isLong,
    horizontal: true,
    getScrollElement: () => table.current?.parentElement ?? null,
    estimateSize: () => columns.width,
    useFlushSync: false,
    overscan: 2,
    scrollMargin: columns.from
  })
  useLayoutEffect(() => {
    const [body] = table.current?.tBodies ?? []
    const scroller = table.current?.parentElement
    if (body && scroller)
      setAbove(
        body.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop
      )
  }, [table, isLong])
  if (!isLong)
    return {
      lines: Array.from({ length: count }, (_, index) => ({ index, gap: 0 })),
      rest: 0,
      columns: [0, columns.count],
      isLong,
      show: () => {}
    }
  const seen = across.getVirtualItems()
  const [first, last] = [seen[0]?.index ?? 0, seen.at(-1)?.index ?? -1]
  let end = above
  const lines = virtual.getVirtualItems().map((item) => {
    const gap = Math.max(0, item.start - end)
    end = item.end
    return { index: item.index, gap }
  })
  return {
    lines,
    rest: Math.max(0, above + virtual.getTotalSize() - end),
    columns: [Math.min(first, columns.keep), Math.max(last, columns.keep) + 1],
    isLong,
    show: (index) => virtual.scrollToIndex(index)
  }
}
