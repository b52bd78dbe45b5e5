// The blend modes by what they do to the photo, in plain words.

import type { BlendMode } from '../../api/types'

export const BLEND_NAMES: Record<BlendMode, string> = {
  normal: 'normal',
  darken: 'darken',
  multiply: 'multiply',
  'color-burn': 'colour burn',
  lighten: 'lighten',
  screen: 'screen',
  'color-dodge': 'colour dodge',
  overlay: 'overlay',
  'soft-light': 'soft light',
  'hard-light': 'hard light',
  difference: 'difference',
  exclusion: 'exclusion',
  hue: 'hue',
  saturation: 'saturation',
  color: 'colour',
  luminosity: 'luminosity',
}

export const BLEND_GROUPS: { name: string; modes: BlendMode[] }[] = [
  { name: 'Covers', modes: ['normal'] },
  { name: 'Darker', modes: ['darken', 'multiply', 'color-burn'] },
  { name: 'Lighter', modes: ['lighten', 'screen', 'color-dodge'] },
  { name: 'More contrast', modes: ['soft-light', 'overlay', 'hard-light'] },
  { name: 'Colour only', modes: ['color', 'hue', 'saturation'] },
  { name: 'Light only, and negatives', modes: ['luminosity', 'difference', 'exclusion'] },
]
