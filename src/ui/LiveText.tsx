import { useRef } from 'react';
import { Text, type StyleProp, type TextStyle } from 'react-native';
import { elementOf, useFrame } from './frame';
import { useTokens } from './theme';
import { FONT, FONT_STRONG } from './tokens';

interface LiveTextProps {
  /** Read every frame; the screen is only touched when the text has changed. */
  readonly read: () => string;
  readonly strong?: boolean;
  readonly size?: number;
  readonly label?: string;
  readonly style?: StyleProp<TextStyle>;
}

/** Text that changes while sound plays, without React in between. */
export function LiveText({ read, strong = false, size = 15, label, style }: LiveTextProps) {
  const tokens = useTokens();
  const text = useRef<Text>(null);
  useFrame(() => {
    const element = elementOf(text.current);
    const next = read();
    if (element && element.textContent !== next) element.textContent = next;
  });
  return (
    <Text
      ref={text}
      aria-label={label}
      style={[
        {
          fontFamily: strong ? FONT_STRONG : FONT,
          fontSize: size,
          lineHeight: size * 1.3,
          color: tokens.ink,
          fontVariant: ['tabular-nums'],
        },
        style,
      ]}
    >
      {' '}
    </Text>
  );
}
