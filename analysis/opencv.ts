import type CV from '@techstark/opencv-js'

let loading: Promise<{ cv: typeof CV }> | undefined

/**
 * OpenCV's WebAssembly build, ready to use; loaded once per thread. In an object, because the module has a `then`
 * of its own, which would make a promise of it wait for ever.
 */
export function loadOpenCv(): Promise<{ cv: typeof CV }> {
  loading ??= import('@techstark/opencv-js').then(async (module) => {
    const cv = ((module as { default?: unknown }).default ?? module) as typeof CV & {
      onRuntimeInitialized?: () => void
    }
    if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve))
    return { cv }
  })
  return loading
}
