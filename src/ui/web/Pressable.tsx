// The path is spelled out to the file so that the resolver, which puts this module in the place of
// `react-native-web/dist/exports/Pressable`, does not lead back here.
import Base from 'react-native-web/dist/exports/Pressable/index.js';
import { forwardRef } from 'react';
import type { PressableProps, View } from 'react-native';

type State = NonNullable<PressableProps['accessibilityState']>;

/** The ARIA attribute by which a role tells that it is chosen. */
function chosenAttribute(role: string | undefined, { checked, selected }: State): PressableProps {
  const chosen = checked ?? selected;
  if (chosen === undefined) return {};
  if (role === 'radio' || role === 'switch' || role === 'checkbox') return { 'aria-checked': chosen };
  if (role === 'tab' || role === 'option') return { 'aria-selected': chosen === true };
  // `aria-pressed` turns a button into a toggle, so it is left out of those that are not.
  return chosen === true ? ({ 'aria-pressed': true } as PressableProps) : {};
}

/**
 * react-native-web's Pressable, which tells screen readers what `accessibilityState` holds. React Native Paper says the
 * state of its parts by that property alone, and react-native-web 0.21 no longer passes it on.
 */
const Pressable = forwardRef<View, PressableProps>(function Pressable({ accessibilityState, ...rest }, ref) {
  if (!accessibilityState) return <Base {...rest} ref={ref} />;
  const { busy, disabled, expanded } = accessibilityState;
  return (
    <Base
      {...chosenAttribute(rest.role ?? rest.accessibilityRole ?? undefined, accessibilityState)}
      {...(busy === undefined ? {} : { 'aria-busy': busy })}
      {...(disabled ? { 'aria-disabled': true } : {})}
      {...(expanded === undefined ? {} : { 'aria-expanded': expanded })}
      {...rest}
      ref={ref}
    />
  );
});

export default Pressable;
