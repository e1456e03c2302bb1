import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../../core/music/grid';
import { placeSeconds } from '../../../core/music/tempo';
import { clipEnd } from '../../../core/piece/clipEdges';
import { findClip } from '../../../core/piece/find';
import type { Clip, Piece } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';
import { FRAMES_PER_PEAK } from '../../../audio/soundLibrary';
import { useTokens } from '../../../ui/theme';
import { Waveform } from '../../../ui/Waveform';
import { Text } from '../../../ui/Text';
import { useStudio } from '../../studio/StudioProvider';
import { useClipHold, type Grip, type Held } from './clipHold';

/** Beats visible in the lens. */
const LENS_BEATS = 2;
const LENS_HEIGHT = 74;
export const SAYS: Record<Grip, string> = { move: 'Begins at', start: 'Starts at', end: 'Ends at' };

export const edgeOf = ({ piece, clip, grip }: Held): number => (grip === 'end' ? clipEnd(piece, clip) : clip.start);

/** A position as bar and beat, and the fraction of the beat. */
export function placeText(piece: Piece, beat: number): string {
  const { bar, beat: counted } = toBarBeat(beat, tempoOf(piece));
  const within = (beat % 1) + 1e-9;
  return `${bar}.${counted}${within > 0.005 && within < 0.995 ? ` and ${within.toFixed(2)} of a beat` : ''}`;
}

/**
 * Over the head of the page while a thumb covers the clip that it drags: the dragged edge, magnified, against the
 * sounds around it.
 */
export function ClipLens() {
  const held = useClipHold((state) => state.held);
  const tokens = useTokens();
  const [width, setWidth] = useState(0);
  if (!held) return null;
  return (
    <View style={[styles.lens, { backgroundColor: tokens.card, borderColor: tokens.coral }]}>
      <View style={styles.says}>
        <Text
          variant="titleSmall"
          numberOfLines={1}
        >{`${SAYS[held.grip]} ${placeText(held.piece, edgeOf(held))}`}</Text>
        <Text variant="bodySmall" numberOfLines={1} style={styles.how}>
          {held.slow ? 'slowly' : 'farther off: slower'}
        </Text>
      </View>
      <View style={styles.glass} onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
        {width > 0 ? <Glass held={held} width={width} /> : null}
      </View>
    </View>
  );
}

function Glass({ held, width }: { readonly held: Held; readonly width: number }) {
  const tokens = useTokens();
  const { piece, clip } = held;
  const from = edgeOf(held) - LENS_BEATS / 2;
  const x = (beat: number): number => ((beat - from) * width) / LENS_BEATS;
  const lines = Array.from({ length: LENS_BEATS * 4 + 1 }, (_, i) => Math.ceil(from * 4) / 4 + i / 4).filter(
    (beat) => beat >= 0 && x(beat) <= width,
  );
  const track = findClip(piece, clip.id)?.track;
  const others = piece.tracks.filter((one) => one !== track && !one.mute).flatMap(({ clips }) => clips);
  const own = (track?.clips ?? []).filter((one) => one.id !== clip.id);
  return (
    <>
      {lines.map((beat) => (
        <View
          key={beat}
          style={[styles.line, { left: x(beat), opacity: beat % 1 === 0 ? 1 : 0.4, backgroundColor: tokens.line }]}
        />
      ))}
      {[...others, ...own].map((one) => (
        <LensClip key={one.id} clip={one} piece={piece} from={from} x={x} faint={!own.includes(one)} />
      ))}
      <LensClip clip={clip} piece={piece} from={from} x={x} faint={false} />
      <View style={[styles.edge, { left: width / 2 - 1, backgroundColor: tokens.coral }]} />
    </>
  );
}

interface LensClipProps {
  readonly clip: Clip;
  readonly piece: Piece;
  readonly from: number;
  readonly x: (beat: number) => number;
  /** Of another track: only its sound is seen, behind. */
  readonly faint: boolean;
}

/** As much of a clip as is under the lens. */
function LensClip({ clip, piece, from, x, faint }: LensClipProps) {
  const tokens = useTokens();
  const { studio } = useStudio();
  const sound = studio.sounds.get(clip.sound);
  const tempo = tempoOf(piece);
  const [start, end] = [Math.max(clip.start, from), Math.min(clipEnd(piece, clip), from + LENS_BEATS)];
  if (!sound || clip.mute || end <= start) return null;
  const into = (beat: number): number => placeSeconds(Math.max(0, beat), tempo) - placeSeconds(clip.start, tempo);
  // A reversed clip begins at the end of its part of the sound.
  const [a, b] = clip.reversed
    ? [clip.lengthSeconds - into(end), clip.lengthSeconds - into(start)]
    : [into(start), into(end)];
  const peak = (seconds: number): number => ((clip.offsetSeconds + seconds) * piece.sampleRate) / FRAMES_PER_PEAK;
  const [left, wide] = [x(start), x(end) - x(start)];
  const printed = clip.print !== null;
  const colour = faint ? tokens.mute : printed ? tokens.plum : tokens.sand;
  return (
    <View
      style={[
        styles.clip,
        {
          left,
          width: wide,
          opacity: faint ? 0.35 : 1,
          backgroundColor: faint ? 'transparent' : printed ? tokens.plumSoft : tokens.sandSoft,
        },
      ]}
    >
      <Waveform
        peaks={sound.peaks}
        from={peak(a)}
        to={peak(b)}
        width={wide}
        height={LENS_HEIGHT - 8}
        colour={colour}
        gain={clip.gain}
        reversed={clip.reversed ?? false}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  lens: {
    position: 'absolute',
    left: 10,
    right: 10,
    top: 4,
    borderWidth: 1,
    borderRadius: 12,
    paddingHorizontal: 10,
    paddingBottom: 8,
    pointerEvents: 'none',
    zIndex: 3,
  },
  says: { flexDirection: 'row', alignItems: 'baseline', gap: 8, minHeight: 26 },
  how: { flex: 1, textAlign: 'right' },
  glass: { height: LENS_HEIGHT, overflow: 'hidden' },
  line: { position: 'absolute', top: 0, bottom: 0, width: 1 },
  edge: { position: 'absolute', top: 0, bottom: 0, width: 2 },
  clip: { position: 'absolute', top: 4, height: LENS_HEIGHT - 8, borderRadius: 4, overflow: 'hidden' },
});
