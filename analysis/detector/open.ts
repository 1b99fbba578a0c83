/**
 * Answers count in what is asked next once they are this old, in seconds of footage: results must not hang on how fast
 * the machine is. Whoever is ahead by more waits for them.
 */
const ANSWER_SECONDS = 10

/** Questions that are asked and not yet answered; their answers are heard in the order of frames. */
export class Open {
  private readonly open: { frame: number; heard: Promise<void> }[] = []
  private readonly fps: number

  constructor(fps: number) {
    this.fps = fps
  }

  /** The last frame whose answers may be known at a frame. */
  knownAt(frame: number): number {
    return frame - Math.round(ANSWER_SECONDS * this.fps)
  }

  /** Waits for the answers of that frame and of those before. @throws what the detector throws */
  async until(frame: number): Promise<void> {
    while (this.open[0] && this.open[0].frame <= frame) await this.open.shift()!.heard
  }

  /** @param hear called with the answer, once those before have been heard */
  add<T>(frame: number, answer: Promise<T>, hear: (seen: T) => void): void {
    const before = this.open.at(-1)?.heard
    const heard = answer.then(async (seen) => {
      await before
      hear(seen)
    })
    // Its error is thrown to whoever waits for it; until then it must not count as unhandled.
    heard.catch(() => {})
    this.open.push({ frame, heard })
  }
}

/** How many looks there are: so many in a second of footage, some of them saved up for when much comes at once. */
export class Budget {
  private readonly aSecond: number
  private readonly most: number
  private readonly fps: number
  private last = 1
  /** Looks that are left. */
  saved: number

  constructor(aSecond: number, most: number, fps: number) {
    this.aSecond = aSecond
    this.saved = this.most = most
    this.fps = fps
  }

  /** Adds what has come since the frame that it was last told of. */
  at(frame: number): void {
    const seconds = (frame - this.last) / this.fps
    this.saved = Math.min(this.most, this.saved + seconds * this.aSecond)
    this.last = frame
  }
}
