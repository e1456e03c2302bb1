import type { ComponentProps } from 'react';
import { Text as PaperText } from 'react-native-paper';
import { useTokens } from './theme';
import type { Tone } from './tokens';

type Variant = 'bodyMedium' | 'titleSmall' | 'bodySmall' | 'titleLarge' | 'headlineSmall' | 'headlineMedium';

const TONES: Record<Variant, Tone> = {
  bodyMedium: 'ink',
  titleSmall: 'ink',
  bodySmall: 'mute',
  titleLarge: 'ink',
  headlineSmall: 'sea',
  headlineMedium: 'sea',
};

interface TextProps extends Omit<ComponentProps<typeof PaperText>, 'variant' | 'theme'> {
  readonly variant?: Variant;
  /** The ink it is written in; that of the variant when left out. */
  readonly tone?: Tone;
}

/** Paper's Text in one of the product's inks and with tabular figures. */
export function Text({ variant = 'bodyMedium', tone = TONES[variant], style, ...rest }: TextProps) {
  const tokens = useTokens();
  return (
    <PaperText {...rest} variant={variant} style={[{ color: tokens[tone], fontVariant: ['tabular-nums'] }, style]} />
  );
}
