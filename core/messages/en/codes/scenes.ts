import { messages } from '../../messages.ts'

export const scenes = messages({
  mustBeAColour: 'must be a colour',
  mustBeAColourSuch: 'must be a colour such as "#8d8a80"',
  mustBeAPlaceX: 'must be a place [x, z] or [x, z, y] in metres',
  mustBeAListOf: 'must be a list of places',
  needsAtLeast3Corners: 'needs at least 3 corners',
  mustBeWidthDepthHeight: 'must be [width, depth, height] in metres',
  needsAtLeast2Places: 'needs at least 2 places',
  mustBeOneOfFace: 'must be one of face, wall, block, posts, water, tree, reeds, lamp',
  mustBeOneOfSea: 'must be one of sea, land, room',
  mustBeAListOf2: 'must be a list of things'
})
