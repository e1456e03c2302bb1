import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { secondsPerBeat } from '../../core/music/tempo';
import { slotPlaces } from '../../core/piece/find';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { barsPath, headPath, HoldTrace, PARTS } from './holdTrace';

const WIDTH = 72;
/** As tall as the drawing that it takes the place of. */
const HEIGHT = 20;
/** Frames that the audio thread computes between two reports. */
const BLOCK_FRAMES = 128;

interface HoldPictureProps {
  /** Id of the hold in the chain. */
  readonly slot: string;
  readonly sounding: boolean;
}

/**
 * What a hold does now: the last bar as it passed, and where the hold reads in it, as the engine says. Nothing is shown
 * while it does not sound, but what passes is taken in.
 */
export function HoldPicture({ slot, sounding }: HoldPictureProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const index = useMemo(() => slotPlaces(piece).get(slot) ?? -1, [piece, slot]);
  const view = useRef<View>(null);
  const trace = useMemo(() => new HoldTrace(), []);
  const began = useRef(false);
  const partSeconds = (piece.tempo.beatsPerBar * secondsPerBeat(piece.tempo)) / PARTS;
  useFrame(() => {
    const { meters, sampleRate } = studio.player;
    if (!meters.read().playing) return;
    const now = (meters.blocks * BLOCK_FRAMES) / sampleRate / partSeconds;
    trace.note(now, meters.slotPeak(index, 0));
    if (sounding && !began.current) trace.begin(now);
    began.current = sounding;
    if (!sounding) return;
    trace.follow(now - meters.slotLag(index) / partSeconds);
    const [bars, head] = elementOf(view.current)?.querySelectorAll('path') ?? [];
    bars?.setAttribute('d', barsPath(trace, WIDTH, HEIGHT));
    head?.setAttribute('d', headPath(trace, meters.slotPeak(index, 1), WIDTH, HEIGHT));
  });
  return (
    <View ref={view} testID="hold picture" style={sounding ? undefined : styles.hidden} aria-hidden>
      <Svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`}>
        <Path d="" stroke={tokens.paper} strokeOpacity={0.5} strokeWidth={1.2} strokeLinecap="round" fill="none" />
        <Path d="" stroke={tokens.paper} strokeWidth={3} strokeLinecap="round" fill="none" />
      </Svg>
    </View>
  );
}

const styles = StyleSheet.create({
  hidden: { display: 'none' },
});
