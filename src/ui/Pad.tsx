import { useRef, useState, type ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { useHold } from './pointer';
import { useTokens } from './theme';
import { Text } from './Text';

interface PadProps {
  /** What it is for a reader: what is held, and what that does. */
  readonly label: string;
  /** In large letters. */
  readonly title: string;
  readonly tone: 'sea' | 'coral';
  /** It stays down by itself, as one that is latched does. */
  readonly down?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onBegin: () => void;
  readonly onEnd: () => void;
  readonly children?: ReactNode;
}

/**
 * A large target that acts for as long as it is held, by a finger, the mouse, Space or Enter. Several can be held at
 * once, which React Native's own press handling does not allow.
 */
export function Pad({ label, title, tone, down = false, style, onBegin, onEnd, children }: PadProps) {
  const tokens = useTokens();
  const view = useRef<View>(null);
  const [pressed, setPressed] = useState(false);
  useHold(view, {
    begin: () => {
      setPressed(true);
      onBegin();
    },
    end: () => {
      setPressed(false);
      onEnd();
    },
  });
  const isDown = pressed || down;
  const ink = tone === 'sea' ? tokens.ink : tokens.coralInk;
  const full = tone === 'sea' ? tokens.sea : tokens.coralInk;
  return (
    <View
      ref={view}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={isDown}
      style={[
        styles.pad,
        {
          borderColor: tokens[tone],
          backgroundColor: isDown ? full : tone === 'sea' ? tokens.seaSoft : tokens.coralSoft,
        },
        style,
      ]}
    >
      <Text variant="headlineSmall" style={{ color: isDown ? tokens.paper : ink }}>
        {title}
      </Text>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  pad: {
    flexGrow: 1,
    minWidth: 130,
    height: 120,
    borderWidth: 2,
    borderRadius: 18,
    alignItems: 'center',
    justifyContent: 'center',
    userSelect: 'none',
  },
});
