import { useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { laneTrack, trackAt } from '../../core/piece/moves/lane';
import { paramOf, sameTarget } from '../../core/piece/find';
import type { Lane, Piece, Target } from '../../core/piece/piece';
import { axesOf } from '../../core/piece/playField';
import { useRecording } from '../../data/recording';
import { elementOf, useFrame } from '../../ui/frame';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { holdTargets } from '../studio/played';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { labelOf, ownerOf } from './fieldText';

const MOST = 4;

const isPlayed = (piece: Piece, target: Target): boolean =>
  target.kind === 'send' ||
  holdTargets(piece).some((hold) => sameTarget(hold, target)) ||
  (piece.fields ?? []).some((field) => axesOf(field).some((axis) => sameTarget(axis.target, target)));

/** Moves of what is played here, the newest last, along the whole piece. */
export function Recorded() {
  const piece = usePiece();
  const armed = useRecording((recording) => recording.armed);
  const playing = useRecording((recording) => recording.playing);
  const lanes = piece.lanes.filter(({ target }) => isPlayed(piece, target)).slice(-MOST);
  return (
    <View role="group" aria-label="Recorded" style={styles.panel}>
      <Text variant="headlineSmall" tone="coralInk" role="heading" aria-level={2}>
        {armed && playing ? 'What is being recorded' : 'Recorded'}
      </Text>
      {lanes.length === 0 ? (
        <Text variant="bodyMedium" tone="mute">
          {armed && playing
            ? 'What you hold, sweep and throw now is kept.'
            : armed
              ? 'Armed: press Play, and what you hold, sweep and throw is kept.'
              : 'Press moves below to arm, then Play: what you hold, sweep and throw is kept.'}
        </Text>
      ) : (
        lanes.map((lane) => <Strip key={lane.id} lane={lane} />)
      )}
    </View>
  );
}

const READINGS = 400;

function Strip({ lane }: { readonly lane: Lane }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const mark = useRef<View>(null);
  const path = useMemo(() => {
    const param = paramOf(piece, lane.target);
    if (!param) return '';
    const track = laneTrack(piece, lane, param);
    const points = Array.from({ length: READINGS + 1 }, (_, i) => {
      const at = trackAt(track, (i / READINGS) * piece.lengthBeats);
      return `${((100 * i) / READINGS).toFixed(2)} ${(22 - 20 * at).toFixed(1)}`;
    });
    return `M${points.join('L')}`;
  }, [piece, lane]);
  useFrame(() => {
    const element = elementOf(mark.current);
    if (element) element.style.left = `${(100 * studio.beat) / piece.lengthBeats}%`;
  });
  return (
    <View style={styles.row}>
      <View style={styles.what}>
        <Text style={styles.label} numberOfLines={1}>
          {labelOf(piece, lane.target)}
        </Text>
        <Text variant="bodyMedium" tone="mute" numberOfLines={1}>
          {ownerOf(piece, lane.target)}
        </Text>
      </View>
      <View style={[styles.strip, { backgroundColor: tokens.card, borderColor: tokens.line }]}>
        <Svg
          width="100%"
          height="100%"
          style={StyleSheet.absoluteFill}
          viewBox="0 0 100 24"
          preserveAspectRatio="none"
          aria-hidden
        >
          <Path d={path} stroke={tokens.coral} strokeWidth={2} fill="none" vectorEffect="non-scaling-stroke" />
        </Svg>
        <View ref={mark} style={[styles.mark, { backgroundColor: tokens.ink }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 6 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10, height: 42 },
  what: { width: 128 },
  label: { fontSize: 15, lineHeight: 19 },
  strip: { flex: 1, height: 34, borderWidth: 1, borderRadius: 8, overflow: 'hidden' },
  mark: { position: 'absolute', top: 0, bottom: 0, width: 1 },
});
