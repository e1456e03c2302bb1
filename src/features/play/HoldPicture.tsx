import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { secondsPerBeat } from '../../core/music/tempo';
import { slotPlaces } from '../../core/piece/find';
import { elementOf, useFrame } from '../../ui/frame';
import { useTokens } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { barsPath, headPath, HoldTrace, BINS } from './holdTrace';

const WIDTH = 72;
/** The height of a hold's still drawing, which it replaces. */
const HEIGHT = 20;
/** Frames that the audio thread computes between two reports. */
const BLOCK_FRAMES = 128;

interface HoldPictureProps {
  /** Id of the hold in the chain. */
  readonly slot: string;
  readonly sounding: boolean;
}

/**
 * Levels of the last bar of a hold's input, and the position of its read head in it as the engine reports it. Hidden
 * while the hold does not sound; it collects levels all the time.
 */
export function HoldPicture({ slot, sounding }: HoldPictureProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const index = useMemo(() => slotPlaces(piece).get(slot) ?? -1, [piece, slot]);
  const view = useRef<View>(null);
  const trace = useMemo(() => new HoldTrace(), []);
  const began = useRef(false);
  const binSeconds = (piece.tempo.beatsPerBar * secondsPerBeat(piece.tempo)) / BINS;
  useFrame(() => {
    const { meters, sampleRate } = studio.player;
    if (!meters.read().playing) return;
    const now = (meters.blocks * BLOCK_FRAMES) / sampleRate / binSeconds;
    trace.addLevel(now, meters.slotPeak(index, 0));
    if (sounding && !began.current) trace.begin(now);
    began.current = sounding;
    if (!sounding) return;
    trace.followHead(now - meters.slotLag(index) / binSeconds);
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
