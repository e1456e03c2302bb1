import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path } from 'react-native-svg';
import { linkedRail } from '../../core/piece/links/link';
import { trackAt } from '../../core/piece/moves/lane';
import type { LaneTrack } from '../../core/automation/evaluate';
import type { Lane } from '../../core/piece/piece';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { LaneLeaf } from './LaneLeaf';
import type { Window } from './lanePath';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { liveOutput, isTurnedLive } from '../studio/liveOutput';

const PX_PER_READING = 3;
const DOT = 10;

interface LaneOverlayProps {
  readonly lane: Lane;
  readonly track: LaneTrack;
  readonly pxPerBeat: number;
  readonly window: Window;
  readonly height: number;
  /** Place in the field of a place on the rail. */
  readonly y: (position: number) => number;
}

/**
 * The effect of links on the lane: their range as a band, their course as a fine dashed line, and a mark that shows the
 * parameter's present value.
 */
export function LaneOverlay({ lane, track, pxPerBeat, window: { from, to }, height, y }: LaneOverlayProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const mark = useRef<View>(null);
  const rail = useMemo(() => linkedRail(piece, lane.target, liveOutput(studio, piece)), [piece, lane.target, studio]);
  const foretold = rail !== null && !isTurnedLive(piece, lane.target);
  const path = useMemo(() => {
    if (!rail || !foretold) return null;
    const count = Math.ceil((to - from) / PX_PER_READING);
    return Array.from({ length: count }, (_, i) => {
      const x = from + i * PX_PER_READING;
      return `${i === 0 ? 'M' : 'L'}${x} ${y(rail.at(x / pxPerBeat)).toFixed(1)}`;
    }).join('');
  }, [rail, foretold, from, to, pxPerBeat, y]);
  useFrame(() => {
    const element = elementOf(mark.current);
    if (!element) return;
    const { beat } = studio;
    const position = rail ? rail.at(beat) : trackAt(track, beat);
    element.style.transform = `translate(${(beat * pxPerBeat - DOT / 2).toFixed(1)}px, ${(y(position) - DOT / 2).toFixed(1)}px)`;
  });
  return (
    <View style={styles.over}>
      {rail ? (
        <View
          style={[
            styles.band,
            { top: y(rail.high), height: Math.max(1, y(rail.low) - y(rail.high)), backgroundColor: tokens.coral },
          ]}
        />
      ) : null}
      {path ? (
        <LaneLeaf window={{ from, to }} height={height}>
          <Path d={path} stroke={tokens.coral} strokeWidth={1.2} strokeDasharray="4 3" fill="none" />
        </LaneLeaf>
      ) : null}
      <View ref={mark} style={[styles.mark, { backgroundColor: tokens.ink, borderColor: tokens.card }]} />
    </View>
  );
}

const styles = StyleSheet.create({
  over: { position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, pointerEvents: 'none' },
  band: { position: 'absolute', left: 0, right: 0, opacity: 0.1 },
  mark: { position: 'absolute', left: 0, top: 0, width: DOT, height: DOT, borderRadius: DOT / 2, borderWidth: 1.5 },
});
