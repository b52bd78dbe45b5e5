import type { ColourName } from '../../api/types'

/** What colours are called, in the order of a rainbow and then the quiet ones. */
export const COLOUR_NAMES: ColourName[] = [
  'red',
  'orange',
  'yellow',
  'green',
  'teal',
  'blue',
  'purple',
  'pink',
  'brown',
  'beige',
  'white',
  'grey',
  'black',
]
