import { DAY } from './tokens'
import type { Theme } from './tokens'

/** Paper that is printed: white, and in black where no colour is wanted; markers and line styles tell values apart. */
export const IN_COLOUR: Theme = { ...DAY, paper: '#FFFFFF', leaf: '#FFFFFF', rail: '#FFFFFF', grid: '#DDDDDD' }

const BLACK = '#111111'
export const IN_BLACK: Theme = {
  ...IN_COLOUR,
  ink: BLACK,
  quiet: '#444444',
  teal: BLACK,
  brass: BLACK,
  edge: BLACK,
  hues: [BLACK, BLACK, BLACK, BLACK, BLACK, BLACK, BLACK, BLACK],
}
