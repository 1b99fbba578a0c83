/**
 * What paints pictures in Node bears the names that it has in a browser, for what is painted in
 * both (simulation/paint).
 */
type CanvasRenderingContext2D = import('@napi-rs/canvas').SKRSContext2D
type CanvasImageSource = import('@napi-rs/canvas').Image | import('@napi-rs/canvas').Canvas
type ImageData = import('@napi-rs/canvas').ImageData
type GlobalCompositeOperation = import('@napi-rs/canvas').GlobalCompositeOperation
