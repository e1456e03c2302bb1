import type { ReactNode } from 'react';
import { StyleSheet } from 'react-native';
import Svg, { G } from 'react-native-svg';
import type { Window } from './lanePath';

interface LaneLeafProps {
  readonly window: Window;
  readonly height: number;
  readonly children: ReactNode;
}

/**
 * What is drawn of a long lane: no wider than the window, so that painting it does not take longer the longer it is.
 */
export function LaneLeaf({ window: { from, to }, height, children }: LaneLeafProps) {
  return (
    <Svg width={to - from} height={height} style={[styles.leaf, { left: from }]}>
      <G x={-from}>{children}</G>
    </Svg>
  );
}

const styles = StyleSheet.create({ leaf: { position: 'absolute', top: 0 } });
