/** The canvas library with the shapes that are drawn here; all of it is a third of the Bench's script. */
import 'konva/lib/shapes/Arc.js'
import 'konva/lib/shapes/Circle.js'
import 'konva/lib/shapes/Label.js'
import 'konva/lib/shapes/Line.js'
import 'konva/lib/shapes/Path.js'
import 'konva/lib/shapes/Rect.js'
import 'konva/lib/shapes/Ring.js'
import 'konva/lib/shapes/Text.js'

export {
  Arc,
  Circle,
  Group,
  Label,
  Layer,
  Line,
  Path,
  Rect,
  Ring,
  Shape,
  Stage,
  Tag,
  Text
} from 'react-konva/lib/ReactKonvaCore'
