import type { ReactNode } from 'react';
import { Text, type TextProps, type TextStyle } from 'react-native';
import { FONT, FONT_STRONG, FONT_WATER, type Tokens } from './tokens';
import { useTokens } from './theme';

type Kind = 'body' | 'strong' | 'small' | 'title' | 'water' | 'waterBig';

const KINDS: Record<Kind, TextStyle> = {
  body: { fontFamily: FONT, fontSize: 15, lineHeight: 20 },
  strong: { fontFamily: FONT_STRONG, fontSize: 15, lineHeight: 20 },
  small: { fontFamily: FONT, fontSize: 13, lineHeight: 17 },
  title: { fontFamily: FONT_STRONG, fontSize: 21, lineHeight: 27 },
  water: { fontFamily: FONT_WATER, fontSize: 20, lineHeight: 25 },
  waterBig: { fontFamily: FONT_WATER, fontSize: 28, lineHeight: 33 },
};

interface WordsProps extends TextProps {
  readonly kind?: Kind;
  readonly tone?: keyof Omit<Tokens, 'night'>;
  readonly children: ReactNode;
}

/** All text: the two fonts of the product, tabular figures, one of the theme's inks. */
export function Words({ kind = 'body', tone, style, children, ...rest }: WordsProps) {
  const tokens = useTokens();
  const ink = tone ?? (kind === 'small' ? 'mute' : kind === 'water' || kind === 'waterBig' ? 'sea' : 'ink');
  return (
    <Text {...rest} style={[KINDS[kind], { color: tokens[ink], fontVariant: ['tabular-nums'] }, style]}>
      {children}
    </Text>
  );
}
