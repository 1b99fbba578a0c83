import { createRequire } from 'node:module'
import type CV from '@techstark/opencv-js'

const require = createRequire(import.meta.url)
let loading: Promise<{ cv: typeof CV }> | undefined

/**
 * OpenCV's WebAssembly build, ready to use; loaded once per thread. In an object, because the module has a `then`
 * of its own, which would make a promise of it wait for ever.
 */
export function loadOpenCv(): Promise<{ cv: typeof CV }> {
  loading ??= (async () => {
    // Not imported: its ten million characters would first be searched for what they export.
    const cv = require('@techstark/opencv-js') as typeof CV & {
      onRuntimeInitialized?: () => void
    }
    if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve))
    return { cv }
  })()
  return loading
}
