// What each treatment can be set to, in the order in which it is shown.

import type { Treatment } from '../../../api/types'

interface Row {
  field: string
  label: string
}

export type Setting = Row &
  (
    | { is: 'length'; min?: number; max: number }
    | { is: 'number'; min?: number; max: number; unit: '%' | '°' | ''; scale?: number }
    | { is: 'words'; words: Record<string, string> }
    | { is: 'colour' }
    | { is: 'tick' }
    /** A colour that may be left out. */
    | { is: 'ink'; fresh: string }
  )

const percent = (field: string, label: string): Setting => ({ is: 'number', field, label, max: 100, unit: '%' })
const angle = (field: string, label: string): Setting => ({
  is: 'number',
  field,
  label,
  min: -180,
  max: 180,
  unit: '°',
})
/** In short sides of the size; shown in its pixels. */
const length = (field: string, label: string, min: number, max: number): Setting => ({
  is: 'length',
  field,
  label,
  min,
  max,
})
const PAPER: Setting = { is: 'colour', field: 'paper', label: 'Paper' }

export const TREATMENT_NAMES: Record<Treatment['kind'], string> = {
  mosaic: 'mosaic',
  dots: 'print raster',
  drawing: 'drawing',
  poster: 'poster',
  paint: 'paint',
  relief: 'relief',
  grain: 'grain',
  vignette: 'vignette',
  glow: 'glow',
  blur: 'blur',
  sharp_zone: 'sharp zone',
}

export const SETTINGS: Record<Treatment['kind'], Setting[]> = {
  mosaic: [
    {
      is: 'words',
      field: 'form',
      label: 'Cells',
      words: { square: 'squares', hexagon: 'hexagons', pebble: 'pebbles' },
    },
    length('cell', 'Cell size', 0.004, 0.15),
    { is: 'number', field: 'joint', label: 'Joints', max: 40, unit: '%', scale: 100 },
    { is: 'colour', field: 'joint_colour', label: 'Joint colour' },
  ],
  dots: [
    { is: 'words', field: 'form', label: 'Raster', words: { round: 'dots', line: 'lines' } },
    length('pitch', 'Spacing', 0.003, 0.06),
    angle('angle', 'Angle'),
    percent('lighter', 'Lighter'),
    { is: 'ink', field: 'ink', label: 'One ink', fresh: '#1E2A2F' },
    PAPER,
  ],
  drawing: [
    { is: 'words', field: 'medium', label: 'Drawn with', words: { pencil: 'pencil', ink: 'pen and ink' } },
    length('line', 'Line width', 0.001, 0.012),
    percent('detail', 'Detail'),
    percent('shading', 'Shading'),
    { is: 'colour', field: 'ink', label: 'Ink' },
    PAPER,
  ],
  poster: [
    { is: 'number', field: 'colours', label: 'Colours', min: 2, max: 12, unit: '' },
    length('smooth', 'Smoothing', 0, 0.08),
  ],
  paint: [length('brush', 'Brush size', 0.003, 0.06), percent('bristles', 'Bristles')],
  relief: [
    {
      is: 'words',
      field: 'ground',
      label: 'Ground',
      words: { paper: 'paper', canvas: 'canvas', plaster: 'plaster' },
    },
    length('grain', 'Grain size', 0.002, 0.03),
    percent('depth', 'Depth'),
    angle('light', 'Light from'),
  ],
  grain: [
    length('size', 'Grain size', 0.001, 0.012),
    percent('amount', 'Amount'),
    { is: 'tick', field: 'coloured', label: 'Coloured' },
  ],
  vignette: [
    percent('amount', 'Amount'),
    percent('reach', 'Begins at'),
    percent('softness', 'Softness'),
    { is: 'colour', field: 'colour', label: 'Colour' },
  ],
  glow: [length('radius', 'Spread', 0.004, 0.12), percent('amount', 'Amount'), percent('above', 'From lightness')],
  blur: [length('radius', 'Radius', 0, 0.1)],
  sharp_zone: [
    { is: 'words', field: 'form', label: 'Form', words: { band: 'band', round: 'circle' } },
    length('sharp', 'Sharp up to', 0, 0.6),
    length('fade', 'Fades over', 0.01, 0.8),
    length('radius', 'Blur', 0, 0.1),
  ],
}
