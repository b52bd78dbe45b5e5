import type { BadgeForm } from '../../../api/types'

export const FORMS: Record<BadgeForm, string> = {
  arrow: 'Arrow',
  'curved-arrow': 'Curved arrow',
  line: 'Line',
  label: 'Label',
  circle: 'Circle',
  ring: 'Ring',
  burst: 'Burst',
  star: 'Star',
  heart: 'Heart',
  bubble: 'Speech bubble',
  tick: 'Tick',
  ribbon: 'Ribbon',
  'price-tag': 'Price tag',
  icon: 'Icon',
}

/** Small drawings of the forms, in a box of 20 x 20. */
export const GLYPHS: Record<BadgeForm, string> = {
  arrow: 'M2 8h9V4l7 6-7 6v-4H2z',
  'curved-arrow': 'M2 15C3 6 9 3 14 6l1-2 3 7-7-1 2-2C9 7 6 9 5 15z',
  line: 'M2 9h16v2H2z',
  label: 'M4 6h12a2 2 0 0 1 2 2v4a2 2 0 0 1-2 2H4a2 2 0 0 1-2-2V8a2 2 0 0 1 2-2z',
  circle: 'M10 2a8 8 0 1 1 0 16a8 8 0 0 1 0-16z',
  ring: 'M10 2a8 8 0 1 1 0 16a8 8 0 0 1 0-16zM10 5a5 5 0 1 0 0 10a5 5 0 0 0 0-10z',
  burst: 'M10 1l2 3 3-2 .5 3.500 3.500.5-2 3 2 3-3.500.5L15 18l-3-2-2 3-2-3-3 2-.5-3.500L1 12l2-3-2-3 3.500-.5L5 2l3 2z',
  star: 'M10 2l2.500 5.500 6 .7-4.500 4 1.300 6L10 15.200 4.700 18.200 6 12.200l-4.500-4 6-.7z',
  heart: 'M10 17C3 12 2 9 2 7a4 4 0 0 1 8-1 4 4 0 0 1 8 1c0 2-1 5-8 10z',
  bubble: 'M4 3h12a2 2 0 0 1 2 2v6a2 2 0 0 1-2 2H9l-4 4v-4H4a2 2 0 0 1-2-2V5a2 2 0 0 1 2-2z',
  tick: 'M2 10l3-3 3 4 8-8 2 2-10 12z',
  ribbon: 'M1 6h18l-3 4 3 4H1l3-4z',
  icon: 'M10 1a2 2 0 0 1 2 2v3h5a2 2 0 0 1 0 4h-1l-1 8H5L4 10H3a2 2 0 0 1 0-4h5V3a2 2 0 0 1 2-2z',
  'price-tag': 'M7 4h12v12H7L1 10zM7 8.500a1.500 1.500 0 1 0 0 3a1.500 1.500 0 0 0 0-3z',
}
