import { fileURLToPath } from 'node:url'

/** The fonts of a record: the application's own, and one with more letters for what it lacks. */

export type Weight = 'regular' | 'bold'
/** A piece of text that one font can show. */
export interface Run {
  text: string
  font: string
}

const fileOf = (path: string): string => fileURLToPath(import.meta.resolve(path))
const FILES: Readonly<Record<string, string>> = {
  regular:
    '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf',
  bold: '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf',
  'regular-more': 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'bold-more': 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'
}
/** In place of a letter that neither has. */
const MISSING = '\u25A1'

interface Glyphs {
  hasGlyphForCodePoint(code: number): boolean
}

/** Chooses the font for each letter. What was asked is remembered: a record says the same words again and again. */
export class Fonts {
  private readonly doc: PDFKit.PDFDocument
  private readonly glyphs = new Map<string, Glyphs>()
  private readonly known = new Map<string, string>()

  constructor(doc: PDFKit.PDFDocument) {
    this.doc = doc
    for (const [name, path] of Object.entries(FILES)) {
      doc.registerFont(name, fileOf(path))
      doc.font(name)
      // The document's own type leaves out the font that it has opened.
      this.glyphs.set(name, (doc as unknown as { _font: { font: Glyphs } })._font.font)
    }
  }

  /** @returns the text in pieces, each with its font */
  runs(text: string, weight: Weight): Run[] {
    const runs: Run[] = []
    for (const letter of text) {
      const chosen = this.fontOf(letter, weight)
      const shown = chosen === '' ? MISSING : letter
      const font = chosen === '' ? `${weight}-more` : chosen
      const last = runs.at(-1)
      // A space belongs to whatever stands before it.
      if (last && (last.font === font || letter === ' ')) last.text += shown
      else runs.push({ text: shown, font })
    }
    return runs
  }

  /** Points. */
  widthOf(runs: readonly Run[], size: number): number {
    return runs.reduce(
      (sum, { text, font }) => sum + this.doc.font(font).fontSize(size).widthOfString(text),
      0
    )
  }

  private fontOf(letter: string, weight: Weight): string {
    const key = `${weight}${letter}`
    let font = this.known.get(key)
    if (font === undefined) {
      const code = letter.codePointAt(0)!
      font =
        [weight, `${weight}-more`].find((name) =>
          this.glyphs.get(name)!.hasGlyphForCodePoint(code)
        ) ?? ''
      this.known.set(key, font)
    }
    return font
  }
}
