/** Which part of the picture is on show. */
export interface View {
  /** 1: the whole picture. */
  zoom: number
  /** The upper left corner of what is on show, as shares of the picture. */
  left: number
  top: number
}

const WHOLE: View = { zoom: 1, left: 0, top: 0 }
const MOST = 8

const within = (v: number, zoom: number): number => Math.min(1 - 1 / zoom, Math.max(0, v))

/** The part of the picture on show, and whoever wants to know of it. */
export class Zoom {
  private view = WHOLE
  private readonly listeners = new Set<() => void>()

  get = (): View => this.view

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /**
   * Nearer (above 1) or farther, keeping a place of the picture where it is on the screen; the
   * middle, if none is given.
   */
  by(factor: number, at?: readonly [x: number, y: number]): void {
    const { zoom, left, top } = this.view
    const next = Math.min(MOST, Math.max(1, zoom * factor))
    const [x, y] = at ?? [left + 0.5 / zoom, top + 0.5 / zoom]
    this.set({
      zoom: next,
      left: x - ((x - left) * zoom) / next,
      top: y - ((y - top) * zoom) / next
    })
  }

  /** Moves what is on show, by shares of the picture. */
  pan(dx: number, dy: number): void {
    const { zoom, left, top } = this.view
    this.set({ zoom, left: left + dx, top: top + dy })
  }

  whole(): void {
    this.set(WHOLE)
  }

  private set({ zoom, left, top }: View): void {
    this.view = zoom <= 1.001 ? WHOLE : { zoom, left: within(left, zoom), top: within(top, zoom) }
    for (const listener of this.listeners) listener()
  }
}
