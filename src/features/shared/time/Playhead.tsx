import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { elementOf, useFrame } from '../../../ui/frame';
import { useTokens } from '../../../ui/theme';
import { useStudio } from '../../studio/StudioProvider';

/** The line that moves with the sound. */
export function Playhead({ pxPerBeat }: { readonly pxPerBeat: number }) {
  const tokens = useTokens();
  const { studio } = useStudio();
  const line = useRef<View>(null);
  useFrame(() => {
    const element = elementOf(line.current);
    if (element) element.style.transform = `translateX(${(studio.beat * pxPerBeat).toFixed(1)}px)`;
  });
  return <View ref={line} aria-hidden style={[styles.line, { backgroundColor: tokens.ink }]} />;
}

const styles = StyleSheet.create({
  line: { position: 'absolute', left: -1, top: 0, bottom: 0, width: 2, pointerEvents: 'none' },
});
