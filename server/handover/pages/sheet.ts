import PDFDocument from 'pdfkit'
import type { Paper } from '../../../core/handover/views.ts'
import { Fonts, type Run, type Weight } from './fonts.ts'

/** Pages of a document: text, tables and pictures one under the other, tagged for screen readers. All lengths are points. */

export const COLOURS = {
  ink: '#1b2430',
  quiet: '#5a6472',
  hairline: '#d9d4c8',
  paper: '#f7f5f0',
  accent: '#1f6f5c',
  soft: '#dcebe5',
  rust: '#b4451f',
  rustSoft: '#fbeee8',
  saffron: '#8a5a00'
} as const

const MARGIN = { x: 48, top: 56, bottom: 62 }
const LINE = 1.32
/** A page that is filled no further than this, as a share, takes the next chapter too. */
const HARDLY_BEGUN = 0.4

export interface Style {
  size?: number
  weight?: Weight
  colour?: string
  /** Space below. */
  after?: number
}

export interface Column {
  title: string
  /** Of the table's width, beside the others'. */
  share: number
}
export type Cell = string | { text: string; colour?: string; weight?: Weight }

type Line = Run[]
type Element = PDFKit.PDFStructureElement
export type Doc = PDFKit.PDFDocument

export class Sheet {
  readonly doc: Doc
  readonly fonts: Fonts
  y = MARGIN.top
  private readonly root: Element
  private section: Element
  private readonly outlines: PDFKit.PDFOutline[] = []

  constructor(paper: Paper, info: { title: string; author: string; made: Date }) {
    this.doc = new PDFDocument({
      size: paper === 'a4' ? 'A4' : 'LETTER',
      margin: 0,
      autoFirstPage: false,
      bufferPages: true,
      pdfVersion: '1.7',
      tagged: true,
      displayTitle: true,
      lang: 'en',
      info: {
        Title: info.title,
        Author: info.author,
        Producer: 'Wardoptic',
        Creator: 'Wardoptic',
        CreationDate: info.made,
        ModDate: info.made
      }
    })
    this.fonts = new Fonts(this.doc)
    this.root = this.doc.struct('Document')
    this.doc.addStructure(this.root)
    this.section = this.root
  }

  get left(): number {
    return MARGIN.x
  }
  get width(): number {
    return this.doc.page.width - 2 * MARGIN.x
  }
  get bottom(): number {
    return this.doc.page.height - MARGIN.bottom
  }

  page(): void {
    this.doc.addPage()
    this.y = MARGIN.top
  }

  /** A new page unless so much room is left on this one. */
  room(height: number): void {
    if (this.y + height > this.bottom) this.page()
  }

  /** A chapter in the outline: on a new page, unless the last one has hardly begun. @param keep room that it needs */
  chapter(title: string, keep = 120): void {
    const { height } = this.doc.page
    if (this.y > height * HARDLY_BEGUN || this.y + keep > this.bottom) this.page()
    else this.gap(18)
    this.section = this.doc.struct('Sect')
    this.root.add(this.section)
    this.outlines[0] = this.doc.outline.addItem(title, { expanded: true })
    this.heading('H1', title, { size: 19, after: 12 })
  }

  /** @param keep room that must be left below it, so that it does not stand alone */
  part(title: string, keep = 60): void {
    this.room(keep + 30)
    if (this.y > MARGIN.top) this.y += 6
    this.outlines[0]?.addItem(title)
    this.heading('H2', title, { size: 13, after: 6 })
  }

  subheading(title: string, keep = 40): void {
    this.room(keep + 20)
    this.heading('H3', title, { size: 10.5, after: 3 })
  }

  private heading(tag: 'H1' | 'H2' | 'H3', title: string, style: Style): void {
    this.text(title, { weight: 'bold', ...style }, tag)
  }

  text(text: string, style: Style = {}, tag = 'P'): void {
    const { size = 9.5, weight = 'regular', after = 5 } = style
    const lines = this.lines(text, this.width, size, weight)
    const height = size * LINE
    // The part of a paragraph that stands on one page is one mark.
    for (let from = 0; from < lines.length;) {
      this.room(height)
      const fits = Math.max(1, Math.floor((this.bottom - this.y) / height))
      const shown = lines.slice(from, from + fits)
      const top = this.y
      this.marked(tag, () =>
        shown.forEach((line, i) => this.line(line, this.left, top + i * height, size, style.colour))
      )
      this.y += shown.length * height
      from += shown.length
    }
    this.y += after
  }

  /** Text at a place, without moving on; within a mark that is open. */
  at(text: string, x: number, y: number, width: number, style: Style = {}): number {
    const { size = 9.5, weight = 'regular' } = style
    const lines = this.lines(text, width, size, weight)
    lines.forEach((line, i) => this.line(line, x, y + i * size * LINE, size, style.colour))
    return lines.length * size * LINE
  }

  heightOf(text: string, width: number, { size = 9.5, weight = 'regular' }: Style = {}): number {
    return this.lines(text, width, size, weight).length * size * LINE
  }

  /** What is drawn means this to a screen reader. */
  marked(tag: string, draw: () => void, options: { alt?: string } = {}): void {
    this.section.add(this.doc.struct(tag, options, () => draw()))
  }

  /** What is drawn means nothing: rules, backgrounds, what stands on every page. */
  artifact(draw: () => void): void {
    this.doc.markContent('Artifact')
    draw()
    this.doc.endMarkedContent()
  }

  gap(height: number): void {
    this.y += height
  }

  /** Pairs of a name and a value, one under the other. */
  facts(pairs: readonly (readonly [string, string])[], nameWidth = 120): void {
    for (const [name, value] of pairs) {
      const x = this.left + nameWidth
      const height = Math.max(
        this.heightOf(value, this.width - nameWidth),
        this.heightOf(name, nameWidth - 10)
      )
      this.room(height)
      const { y } = this
      this.marked('P', () => {
        this.at(name, this.left, y, nameWidth - 10, { colour: COLOURS.quiet })
        this.at(value, x, y, this.width - nameWidth)
      })
      this.y += height + 3
    }
    this.y += 4
  }

  /** A table; its heading stands again on every page that it goes on to. */
  table(
    columns: readonly Column[],
    rows: readonly (readonly Cell[])[],
    { size = 8.5, turned = false }: { size?: number; turned?: boolean } = {}
  ): void {
    const sum = columns.reduce((all, { share }) => all + share, 0)
    const widths = columns.map(({ share }) => (share / sum) * this.width)
    const pad = 4
    const lefts = widths.map((_, i) => this.left + widths.slice(0, i).reduce((a, b) => a + b, 0))
    const table = this.doc.struct('Table')
    this.section.add(table)
    const inner = (i: number): number => widths[i]! - 2 * pad
    const textOf = (cell: Cell): string => (typeof cell === 'string' ? cell : cell.text)
    const styleOf = (cell: Cell): Style => ({ size, ...(typeof cell === 'string' ? {} : cell) })
    const heading: Style = { size: size - 0.5, weight: 'bold', colour: COLOURS.quiet }
    const headHeight = turned
      ? Math.min(
          120,
          Math.max(
            ...columns.map(({ title }) =>
              this.fonts.widthOf(this.fonts.runs(title, 'bold'), size - 0.5)
            )
          ) + 10
        )
      : Math.max(...columns.map(({ title }, i) => this.heightOf(title, inner(i), heading))) +
        2 * pad
    const rule = (y: number, colour: string = COLOURS.hairline): void =>
      this.artifact(
        () =>
          void this.doc
            .moveTo(this.left, y)
            .lineTo(this.left + this.width, y)
            .lineWidth(0.6)
            .stroke(colour)
      )
    const row = (cells: readonly Cell[], tag: 'TH' | 'TD', draw: (i: number) => void): void => {
      const tr = this.doc.struct('TR')
      table.add(tr)
      cells.forEach((_, i) => tr.add(this.doc.struct(tag, {}, () => draw(i))))
      tr.end()
    }
    const head = (): void => {
      const { y } = this
      this.artifact(
        () => void this.doc.rect(this.left, y, this.width, headHeight).fill(COLOURS.paper)
      )
      row(
        columns.map(({ title }) => title),
        'TH',
        (i) => {
          const { title } = columns[i]!
          if (turned && i > 1)
            this.upwards(title, lefts[i]! + widths[i]! / 2, y + headHeight - 5, heading)
          else
            this.at(
              title,
              lefts[i]! + pad,
              turned ? y + headHeight - pad - size * LINE : y + pad,
              inner(i),
              heading
            )
        }
      )
      this.y += headHeight
      rule(this.y)
    }
    const heightOf = (cells: readonly Cell[]): number =>
      Math.max(...cells.map((cell, i) => this.heightOf(textOf(cell), inner(i), styleOf(cell)))) +
      2 * pad
    this.room(headHeight + (rows[0] ? heightOf(rows[0]) : 0))
    head()
    for (const cells of rows) {
      const height = Math.min(heightOf(cells), this.bottom - MARGIN.top - headHeight)
      if (this.y + height > this.bottom) {
        this.page()
        head()
      }
      const { y } = this
      row(cells, 'TD', (i) => {
        const cell = cells[i]!
        this.at(textOf(cell), lefts[i]! + pad, y + pad, inner(i), styleOf(cell))
      })
      this.y += height
      rule(this.y)
    }
    table.end()
    this.y += 10
  }

  /** A text that is read from below. */
  private upwards(text: string, x: number, y: number, { size = 8, colour }: Style): void {
    this.doc.save().rotate(-90, { origin: [x, y] })
    this.line(this.fonts.runs(text, 'bold'), x, y - size / 2 - 1, size, colour)
    this.doc.restore()
  }

  /**
   * A picture as wide as it may be.
   *
   * @param draw what is drawn over it, from its upper left corner, `width` by `height`
   */
  picture(
    image: Buffer | string,
    aspect: number,
    alt: string,
    {
      most = 300,
      caption,
      draw
    }: {
      most?: number
      caption?: string
      draw?: (x: number, y: number, width: number, height: number) => void
    } = {}
  ): void {
    const width = Math.min(this.width, most * aspect)
    const height = width / aspect
    this.room(height + (caption ? 18 : 4))
    const { left, y } = this
    this.marked(
      'Figure',
      () => {
        this.doc.image(image, left, y, { width, height })
        if (!draw) return
        this.doc.save().rect(left, y, width, height).clip()
        draw(left, y, width, height)
        this.doc.restore()
      },
      { alt }
    )
    this.y += height + 3
    if (caption) this.text(caption, { size: 8, colour: COLOURS.quiet, after: 6 }, 'Caption')
    else this.y += 4
  }

  /** Pictures side by side, each with a line below. */
  gallery(
    pictures: readonly { image: Buffer; aspect: number; alt: string; caption: string }[],
    columns = 3
  ): void {
    const between = 10
    const width = (this.width - between * (columns - 1)) / columns
    for (let from = 0; from < pictures.length; from += columns) {
      const shown = pictures.slice(from, from + columns)
      const heights = shown.map(({ aspect }) => Math.min(width / aspect, width))
      const captions = shown.map(({ caption }) => this.heightOf(caption, width, { size: 7.5 }))
      const height = Math.max(...heights.map((h, i) => h + 3 + captions[i]!))
      this.room(height)
      const { y } = this
      shown.forEach(({ image, aspect, alt, caption }, i) => {
        const x = this.left + i * (width + between)
        const h = heights[i]!
        const w = Math.min(width, h * aspect)
        this.marked('Figure', () => void this.doc.image(image, x, y, { width: w, height: h }), {
          alt
        })
        this.marked('Caption', () => {
          this.at(caption, x, y + h + 3, width, { size: 7.5, colour: COLOURS.quiet })
        })
      })
      this.y += height + 8
    }
  }

  /** Draws on every page, then closes the document. @param draw what stands at the foot of page `n` of `of` */
  finish(draw: (n: number, of: number) => void): Promise<Buffer> {
    const { start, count } = this.doc.bufferedPageRange()
    for (let i = 0; i < count; i++) {
      this.doc.switchToPage(start + i)
      this.artifact(() => draw(i + 1, count))
    }
    this.root.end()
    return new Promise((resolve, reject) => {
      const parts: Buffer[] = []
      this.doc.on('data', (part: Buffer) => void parts.push(part))
      this.doc.on('end', () => resolve(Buffer.concat(parts)))
      this.doc.on('error', reject)
      this.doc.end()
    })
  }

  private line(runs: Line, x: number, y: number, size: number, colour: string = COLOURS.ink): void {
    let at = x
    for (const { text, font } of runs) {
      this.doc.font(font).fontSize(size).fillColor(colour)
      this.doc.text(text, at, y, { lineBreak: false })
      at += this.doc.widthOfString(text)
    }
  }

  private lines(text: string, width: number, size: number, weight: Weight): Line[] {
    const found: Line[] = []
    for (const paragraph of text.split('\n'))
      found.push(...this.wrapped(paragraph, width, size, weight))
    return found
  }

  /** Breaks at spaces; a word that is wider than a line is broken anywhere. */
  private wrapped(text: string, width: number, size: number, weight: Weight): Line[] {
    const widthOf = (part: string): number =>
      this.fonts.widthOf(this.fonts.runs(part, weight), size)
    const lines: string[] = ['']
    for (const word of text.split(' ')) {
      const last = lines.at(-1)!
      const longer = last ? `${last} ${word}` : word
      if (widthOf(longer) <= width) {
        lines[lines.length - 1] = longer
        continue
      }
      if (last) lines.push('')
      let rest = word
      while (widthOf(rest) > width && rest.length > 1) {
        let fits = rest.length - 1
        while (fits > 1 && widthOf(rest.slice(0, fits)) > width) fits--
        lines[lines.length - 1] = rest.slice(0, fits)
        lines.push('')
        rest = rest.slice(fits)
      }
      lines[lines.length - 1] = rest
    }
    return lines.map((line) => this.fonts.runs(line, weight))
  }
}
