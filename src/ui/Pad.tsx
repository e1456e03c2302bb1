import { useState, type ReactNode } from 'react';
import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { HoldArea } from './HoldArea';
import { useTokens } from './theme';
import { Text } from './Text';

interface PadProps {
  /** Accessible name: what is held, and what that does. */
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

/** A large target with a title that acts for as long as it is held. */
export function Pad({ label, title, tone, down = false, style, onBegin, onEnd, children }: PadProps) {
  const tokens = useTokens();
  const [pressed, setPressed] = useState(false);
  const isDown = pressed || down;
  const ink = tone === 'sea' ? tokens.ink : tokens.coralInk;
  const full = tone === 'sea' ? tokens.sea : tokens.coralInk;
  return (
    <HoldArea
      label={label}
      down={isDown}
      onBegin={() => {
        setPressed(true);
        onBegin();
      }}
      onEnd={() => {
        setPressed(false);
        onEnd();
      }}
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
    </HoldArea>
  );
}

const styles = StyleSheet.create({
  pad: {
    flexGrow: 1,
    minWidth: 130,
    height: 120,
    borderWidth: 2,
    borderRadius: 18,
  },
});
