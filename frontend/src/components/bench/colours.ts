export interface Swatch {
  name: string
  colour: string
}

export const BORDER_COLOURS: Swatch[] = [
  { name: 'white', colour: '#FFFFFF' },
  { name: 'paper', colour: '#F5F1E8' },
  { name: 'sand', colour: '#D9C6A5' },
  { name: 'clay', colour: '#B8401A' },
  { name: 'deep green', colour: '#1F6B4B' },
  { name: 'black', colour: '#000000' },
]

export const LETTER_COLOURS: Swatch[] = [
  { name: 'white', colour: '#FFFFFF' },
  { name: 'ink', colour: '#1E2A2F' },
]

export const GROUND_COLOURS: Swatch[] = BORDER_COLOURS.filter(({ name }) =>
  ['white', 'paper', 'black'].includes(name),
)
