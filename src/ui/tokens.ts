import type { ViewStyle } from 'react-native';

export interface Tokens {
  readonly night: boolean;
  readonly paper: string;
  readonly card: string;
  readonly line: string;
  readonly ink: string;
  readonly mute: string;
  /** Untreated sound. The `Ink` of a colour is its form for text. */
  readonly sand: string;
  readonly sandInk: string;
  readonly sandSoft: string;
  /** Treated sound. */
  readonly sea: string;
  readonly seaSoft: string;
  /** Under what is played while it sounds: 7:1 against paper. */
  readonly seaDeep: string;
  readonly coralDeep: string;
  /** Recorded moves. */
  readonly coral: string;
  readonly coralInk: string;
  /** Under coral text: moves that are chosen. */
  readonly coralSoft: string;
  /** Prints. */
  readonly plum: string;
  readonly plumSoft: string;
  /** Recording and danger only. */
  readonly danger: string;
}

export const DAY: Tokens = {
  night: false,
  paper: '#F6F2E9',
  card: '#FFFDF7',
  line: '#D8CFBD',
  ink: '#20303A',
  mute: '#56626A',
  sand: '#B07A2A',
  sandInk: '#85571A',
  sandSoft: '#E7D3AE',
  sea: '#0F6A83',
  seaSoft: '#B9DBE2',
  seaDeep: '#0A5064',
  coralDeep: '#8E2D17',
  coral: '#C9472B',
  coralInk: '#AE3A20',
  coralSoft: '#F7E3DC',
  plum: '#7A3E79',
  plumSoft: '#E3CFE2',
  danger: '#B3201B',
};

export const NIGHT: Tokens = {
  night: true,
  paper: '#0D171D',
  card: '#15232B',
  line: '#2A3B45',
  ink: '#E9E4D8',
  mute: '#93A3AB',
  sand: '#E0B066',
  sandInk: '#E0B066',
  sandSoft: '#4A3D25',
  sea: '#5CC3DA',
  seaSoft: '#173F4B',
  seaDeep: '#5CC3DA',
  coralDeep: '#FF8A6B',
  coral: '#FF8A6B',
  coralInk: '#FF8A6B',
  coralSoft: '#4A2A22',
  plum: '#D79AD6',
  plumSoft: '#43294A',
  danger: '#FF6B5E',
};

/** The colours by name. */
export type Tone = keyof Omit<Tokens, 'night'>;

export const FONT = 'HankenGrotesk_400Regular';
export const FONT_STRONG = 'HankenGrotesk_600SemiBold';
export const FONT_WATER = 'Newsreader_400Regular_Italic';
/** Least side of anything that is touched. */
export const TOUCH = 44;
/** From this width on, panes are side by side. */
export const WIDE = 900;
/** Corners: of fields, of cards and sheets, and of what is tapped (half of `TOUCH`). */
export const RADIUS = { field: 14, card: 18, pill: 22 } as const;
/** A ground that tells a state changes at once: Paper's TouchableRipple would fade it over 150 ms. */
export const AT_ONCE = { transition: 'none' } as ViewStyle;
