// OpenCV's projectPoints, as a program: Jest's own context cannot load OpenCV's WebAssembly build.
// Argument: JSON of { points: [[x, y, z], …] (y down), tilt (radians), focal, width, height }; prints the pixels.
import module from '@techstark/opencv-js'

const cv = module
if (!cv.Mat) await new Promise((resolve) => (cv.onRuntimeInitialized = resolve))
const { points, tilt, focal, width, height } = JSON.parse(process.argv[2])
const object = cv.matFromArray(points.length, 3, cv.CV_64F, points.flat())
const turn = cv.matFromArray(3, 1, cv.CV_64F, [tilt, 0, 0])
const matrix = cv.matFromArray(3, 3, cv.CV_64F, [
  focal,
  0,
  width / 2,
  0,
  focal,
  height / 2,
  0,
  0,
  1
])
const seen = new cv.Mat()
cv.projectPoints(
  object,
  turn,
  cv.Mat.zeros(3, 1, cv.CV_64F),
  matrix,
  cv.Mat.zeros(4, 1, cv.CV_64F),
  seen,
  new cv.Mat()
)
console.log(JSON.stringify([...seen.data64F]))
