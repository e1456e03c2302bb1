import { useRef } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { setLoop } from '../../core/piece/edits/channels';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { elementOf, useFrame } from '../../ui/frame';
import { LiveText } from '../../ui/LiveText';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { CompareButton } from './CompareButton';
import { TempoButton } from './TempoButton';

/** Width below which the last button of the row would be cut; the history has it instead. */
const FITS_REDO = 384;

/** Always there: play, place, tempo, loop, record moves, undo, and the main level as a waterline along its top. */
export function Transport() {
  const piece = usePiece();
  const tokens = useTokens();
  const wide = useWide();
  const { width } = useWindowDimensions();
  const { studio } = useStudio();
  const playing = useRecording((recording) => recording.playing);
  const armed = useRecording((recording) => recording.armed);
  const { undo, redo, run } = useOpenPiece.getState();
  const cursor = useOpenPiece((state) => state.cursor);
  const entries = useOpenPiece((state) => state.entries);
  const place = (): string => {
    const { bar, beat } = toBarBeat(studio.beat, tempoOf(piece));
    return `${bar} . ${beat}`;
  };
  const recording = armed && playing;
  return (
    <View style={{ backgroundColor: tokens.card }}>
      <Waterline />
      <View style={[styles.row, wide ? styles.rowWide : null]}>
        <IconButton
          icon={playing ? 'square' : 'play'}
          label={playing ? 'Stop' : 'Play'}
          mode="contained"
          style={styles.play}
          onPress={() => studio.toggle()}
        />
        <Touchable label="Back to the start" style={styles.place} onPress={() => studio.locate(0)}>
          <LiveText strong size={17} read={place} />
          <Text variant="bodySmall">bar . beat</Text>
        </Touchable>
        <TempoButton />
        <View style={styles.space} />
        <IconButton
          role="switch"
          icon="repeat"
          label="Loop"
          chosen={piece.loop.on}
          tone={piece.loop.on ? 'sea' : 'mute'}
          style={piece.loop.on ? { backgroundColor: tokens.seaSoft } : undefined}
          onPress={() => run(setLoop, { ...piece.loop, on: !piece.loop.on })}
        />
        <CompareButton />
        <Touchable
          role="switch"
          label="Record moves"
          chosen={armed}
          mode="outlined"
          tone={recording ? 'danger' : 'coralInk'}
          style={styles.moves}
          onPress={() => useRecording.setState({ armed: !armed })}
        >
          <Text
            style={{ color: armed ? tokens.paper : tokens.coralInk }}
          >{`${recording ? '●' : '∿'}${wide ? ' moves' : ''}`}</Text>
        </Touchable>
        <IconButton
          icon="rotate-ccw"
          label={cursor > 0 ? `Undo: ${entries[cursor - 1]?.label}` : 'Undo'}
          disabled={cursor === 0}
          onPress={undo}
        />
        {width >= FITS_REDO ? (
          <IconButton
            icon="rotate-cw"
            label={cursor < entries.length ? `Redo: ${entries[cursor]?.label}` : 'Redo'}
            disabled={cursor === entries.length}
            onPress={redo}
          />
        ) : null}
      </View>
    </View>
  );
}

/**
 * The main level, left half growing left and right half growing right from the middle; a mark shows when the limiter
 * holds.
 */
function Waterline() {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const left = useRef<View>(null);
  const right = useRef<View>(null);
  const index = piece.tracks.length + piece.returns.length;
  useFrame(() => {
    const { meters } = studio.player;
    const share = (peak: number): number => Math.max(0, Math.min(1, 1 + (20 * Math.log10(Math.max(peak, 1e-6))) / 60));
    const l = elementOf(left.current);
    const r = elementOf(right.current);
    if (l) l.style.transform = `scaleX(${share(meters.peak(index, 0)).toFixed(3)})`;
    if (r) r.style.transform = `scaleX(${share(meters.peak(index, 1)).toFixed(3)})`;
  });
  return (
    <View role="img" aria-label="Main level" style={[styles.waterline, { backgroundColor: tokens.line }]}>
      <View style={styles.half}>
        <View ref={left} style={[styles.fill, { backgroundColor: tokens.sea, transformOrigin: 'right' }]} />
      </View>
      <View style={styles.half}>
        <View ref={right} style={[styles.fill, { backgroundColor: tokens.sea, transformOrigin: 'left' }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 6, paddingVertical: 6 },
  rowWide: { paddingHorizontal: 12, gap: 2 },
  play: { width: 48, height: 48, borderRadius: 24 },
  playIcon: { marginLeft: 3 },
  place: { alignItems: 'flex-start', minWidth: 58, paddingHorizontal: 4, borderRadius: 8 },
  space: { flex: 1 },
  moves: { paddingHorizontal: 10 },
  waterline: { height: 4, flexDirection: 'row' },
  half: { flex: 1 },
  fill: { height: 4, width: '100%', transform: [{ scaleX: 0 }] },
});
