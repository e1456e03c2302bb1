import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useAudition } from '../../data/audition';
import { elementOf } from '../../ui/frame';
import { useKeys } from '../../ui/pointer';
import { useTokens } from '../../ui/theme';
import { TOUCH } from '../../ui/tokens';
import { Text } from '../../ui/Text';

const LIFTS = ['pointerup', 'pointercancel', 'keyup', 'blur'] as const;

/** Held by finger, mouse, space bar or Enter: for as long, the whole piece is heard untreated. */
export function CompareButton() {
  const tokens = useTokens();
  const comparing = useAudition((audition) => audition.comparing);
  const view = useRef<View>(null);
  const hold = (held: boolean): void => useAudition.setState({ comparing: held });
  useKeys(view, (event) => {
    if (event.key !== ' ' && event.key !== 'Enter') return false;
    hold(true);
    return true;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    element.style.touchAction = 'none';
    const press = (event: PointerEvent): void => {
      element.setPointerCapture(event.pointerId);
      hold(true);
    };
    const lift = (): void => hold(false);
    element.addEventListener('pointerdown', press);
    for (const name of LIFTS) element.addEventListener(name, lift);
    return () => {
      element.removeEventListener('pointerdown', press);
      for (const name of LIFTS) element.removeEventListener(name, lift);
    };
  }, []);
  return (
    <View
      ref={view}
      role="button"
      tabIndex={0}
      aria-label="Hold to hear the untreated sound"
      aria-pressed={comparing}
      style={[styles.hold, { borderColor: tokens.sand, backgroundColor: comparing ? tokens.sandInk : tokens.sandSoft }]}
    >
      <Text numberOfLines={1} style={{ color: comparing ? tokens.paper : tokens.ink }}>
        dry
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  hold: {
    height: TOUCH,
    marginRight: 2,
    minWidth: 44,
    paddingHorizontal: 6,
    borderRadius: 14,
    borderWidth: 1.5,
    alignItems: 'center',
    justifyContent: 'center',
    userSelect: 'none',
    cursor: 'pointer',
  },
});
