import { configureFonts, type MD3Theme } from 'react-native-paper';
import { FONT, FONT_STRONG, FONT_WATER, RADIUS, type Tokens } from './tokens';

const font = (fontFamily: string, fontSize: number, lineHeight: number) => ({
  fontFamily,
  fontSize,
  lineHeight,
  fontWeight: '400' as const,
  letterSpacing: 0,
});

const body = font(FONT, 15, 20);
const strong = font(FONT_STRONG, 15, 20);
const small = font(FONT, 13, 17);
const title = font(FONT_STRONG, 21, 27);
const italic = font(FONT_WATER, 20, 25);
const italicLarge = font(FONT_WATER, 28, 33);

/** The two fonts of the product at the sizes that Paper's parts ask for by name. */
const fonts = configureFonts({
  config: {
    displayLarge: italicLarge,
    displayMedium: italicLarge,
    displaySmall: italicLarge,
    headlineLarge: italicLarge,
    headlineMedium: italicLarge,
    headlineSmall: italic,
    titleLarge: title,
    titleMedium: strong,
    titleSmall: strong,
    labelLarge: body,
    labelMedium: small,
    labelSmall: small,
    bodyLarge: body,
    bodyMedium: body,
    bodySmall: small,
    default: body,
  },
});

/** Part of a colour, `#RRGGBB`, that lets what is behind it through. */
const faded = (color: string, share: number): string =>
  `${color}${Math.round(share * 255)
    .toString(16)
    .padStart(2, '0')}`;

function colors(tokens: Tokens): MD3Theme['colors'] {
  const { paper, card, line, ink, mute, sea, seaSoft, sandInk, sandSoft, plum, plumSoft, danger } = tokens;
  return {
    primary: sea,
    onPrimary: paper,
    primaryContainer: seaSoft,
    onPrimaryContainer: ink,
    secondary: sandInk,
    onSecondary: paper,
    secondaryContainer: sandSoft,
    onSecondaryContainer: ink,
    tertiary: plum,
    onTertiary: paper,
    tertiaryContainer: plumSoft,
    onTertiaryContainer: ink,
    background: paper,
    onBackground: ink,
    surface: card,
    onSurface: ink,
    surfaceVariant: card,
    onSurfaceVariant: mute,
    surfaceDisabled: faded(ink, 0.08),
    onSurfaceDisabled: faded(ink, 0.4),
    outline: line,
    outlineVariant: line,
    error: danger,
    onError: paper,
    errorContainer: card,
    onErrorContainer: danger,
    shadow: 'transparent',
    scrim: '#0A1218',
    inverseSurface: ink,
    inverseOnSurface: paper,
    inversePrimary: seaSoft,
    backdrop: faded('#0A1218', 0.45),
    elevation: { level0: 'transparent', level1: card, level2: card, level3: card, level4: card, level5: card },
  };
}

/**
 * Paper's theme in the product's colours, fonts and radii; nothing has a shadow.
 *
 * @param still true leaves out every movement
 */
export function paperTheme(tokens: Tokens, still: boolean): MD3Theme {
  return {
    dark: tokens.night,
    mode: 'exact',
    version: 3,
    isV3: true,
    // Paper's buttons have five times this radius: pills of 44 px.
    roundness: RADIUS.pill / 5,
    colors: colors(tokens),
    fonts,
    animation: { scale: still ? 0 : 1 },
  };
}
