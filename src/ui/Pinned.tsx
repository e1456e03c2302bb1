import { useLayoutEffect, useRef, type ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { elementOf } from './frame';

interface PinnedProps {
  readonly style?: StyleProp<ViewStyle>;
  readonly children: ReactNode;
}

/** Stays at the left edge of what scrolls sideways. */
export function Pinned({ style, children }: PinnedProps) {
  const view = useRef<View>(null);
  useLayoutEffect(() => {
    const element = elementOf(view.current);
    if (!element) return;
    element.style.position = 'sticky';
    element.style.left = '0px';
  }, []);
  return (
    <View ref={view} style={[{ alignSelf: 'flex-start' }, style]}>
      {children}
    </View>
  );
}
