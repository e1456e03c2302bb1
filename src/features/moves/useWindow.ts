import { useState } from 'react';
import { useWindowDimensions, type NativeScrollEvent, type NativeSyntheticEvent } from 'react-native';
import type { Window } from './lanePath';

/** What is drawn beyond the edges goes on in steps of so many pixels, so that most scrolling draws nothing anew. */
const STEP = 512;

/** The part of long lanes that is drawn while they are scrolled: what is in sight, and as much again around it. */
export function useWindow(width: number): {
  readonly window: Window;
  readonly onScroll: (event: NativeSyntheticEvent<NativeScrollEvent>) => void;
} {
  const { width: screen } = useWindowDimensions();
  const [step, setStep] = useState(0);
  const onScroll = ({ nativeEvent }: NativeSyntheticEvent<NativeScrollEvent>): void =>
    setStep(Math.floor(nativeEvent.contentOffset.x / STEP));
  return {
    window: { from: Math.max(0, (step - 1) * STEP), to: Math.min(width, (step + 2) * STEP + screen) },
    onScroll,
  };
}
