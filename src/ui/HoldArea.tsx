import { useRef, type ReactNode, type RefObject } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { useHold } from './pointer';

interface HoldAreaProps {
  /** Accessible name: what is held, and what that does. */
  readonly label: string;
  readonly description?: string;
  /** Whether it is down; left out for one that has no state. */
  readonly down?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  readonly onBegin: () => void;
  readonly onEnd?: (() => void) | undefined;
  /** Receives its element, for further listeners. */
  readonly area?: RefObject<View | null>;
  readonly children: ReactNode;
}

/**
 * Acts for as long as it is held, by a finger, the mouse, Space or Enter. Several can be held at once, which React
 * Native's own press handling does not allow.
 */
export function HoldArea({ label, description, down, style, onBegin, onEnd, area, children }: HoldAreaProps) {
  const own = useRef<View>(null);
  const view = area ?? own;
  useHold(view, { begin: onBegin, end: () => onEnd?.() });
  return (
    <View
      ref={view}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-description={description}
      aria-pressed={down}
      style={[styles.area, style]}
    >
      {children}
    </View>
  );
}

const styles = StyleSheet.create({ area: { alignItems: 'center', justifyContent: 'center', userSelect: 'none' } });
