import type { Ground, Shape } from '../../../api/types'

export const GROUND_WORDS: Record<Ground['kind'], string> = {
  transparent: 'transparent',
  colour: 'colour',
  gradient: 'gradient',
  blurred: 'blurred photo',
  this_photo: 'this photo',
  stock: 'backdrop',
  photo: 'other photo',
}

export const SHAPE_WORDS: Record<Shape['kind'], string> = {
  rectangle: 'rectangle',
  circle: 'circle',
  oval: 'oval',
  arch: 'arch',
  triangle: 'triangle',
  diamond: 'diamond',
  polygon: 'polygon',
  star: 'star',
  heart: 'heart',
  bubble: 'speech bubble',
  blob: 'blob',
}

export function shapeWords(shape: Shape): string {
  const name = SHAPE_WORDS[shape.kind]
  return shape.scale === 1 ? name : `${name}, ${Math.round(100 * shape.scale)} %`
}
