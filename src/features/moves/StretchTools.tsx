import { useEffect, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Surface } from 'react-native-paper';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import {
  clearLaneRange,
  flippedInTime,
  flippedInValue,
  pasteLaneRange,
  scaled,
  smoothed,
  copyLaneRange,
  tilted,
  type LaneRange,
} from '../../core/piece/moves/laneRange';
import { quantised, stretchedBy } from '../../core/piece/moves/stretchTime';
import { layMoves } from '../../core/piece/edits/lanes';
import { paramOf } from '../../core/piece/find';
import type { Lane, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { provideStretchActions } from '../../data/stretchActions';
import { useClipboard } from '../../data/clipboard';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { keepCopiedMoves } from '../shared/commands/selection';
import { laneName } from '../shared/controller/laneName';
import { DrawShape } from './DrawShape';

interface StretchToolsProps {
  readonly lane: Lane;
  /** All lanes in view, which may be treated together. */
  readonly lanes: readonly Lane[];
  readonly range: { readonly start: number; readonly end: number };
}

type Change = readonly [label: string, text: string, change: (stretch: LaneRange, piece: Piece) => LaneRange];

const CHANGES: readonly Change[] = [
  ['Flip in time', '⇄ time', flippedInTime],
  ['Flip in value', '⇅ value', flippedInValue],
  ['Larger', 'larger', (stretch) => scaled(stretch, 1.25)],
  ['Smaller', 'smaller', (stretch) => scaled(stretch, 0.8)],
  ['Tilt up', 'tilt up', (stretch) => tilted(stretch, 0.1)],
  ['Tilt down', 'tilt down', (stretch) => tilted(stretch, -0.1)],
  ['Smooth', 'smooth', (stretch, piece) => smoothed(piece, stretch)],
];

/** Where points fall on no grid. */
const NUDGE_BEATS = 0.25;

/**
 * For the stretch chosen on the ruler: copy, cut, clear, paste, repeat, draw a shape, change; of one lane or of all.
 */
export function StretchTools({ lane, lanes, range }: StretchToolsProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const wide = useWide();
  const { studio } = useStudio();
  const clipboard = useClipboard((clipboard) => clipboard.clipboard);
  const pasteBy = useClipboard((clipboard) => clipboard.pasteBy);
  const snap = useView((view) => view.snap);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const treated = lanes.filter(({ id }) => id === lane.id || picked.includes(id));
  const all = treated.length === lanes.length;
  // The lane that was chosen stays in.
  const pick = (id: string): void =>
    setPicked((before) => (before.includes(id) ? before.filter((other) => other !== id) : [...before, id]));
  const { run, say } = useOpenPiece.getState();
  const lay = (made: readonly (Lane | null)[], what: string): boolean => {
    const done = made.flatMap((one) => one ?? []);
    return done.length > 0 && run(layMoves, { lanes: done, what });
  };
  const copy = (): boolean => {
    const taken = treated.flatMap((one) => copyLaneRange(piece, one, range.start, range.end) ?? []);
    useClipboard.setState({ clipboard: taken });
    if (taken.length > 0) keepCopiedMoves();
    return taken.length > 0;
  };
  const clear = (): boolean =>
    lay(
      treated.map((one) => clearLaneRange(piece, one, range.start, range.end)),
      'Clear moves',
    );
  const change = (how: Change[2], what: string): boolean =>
    lay(
      treated.map((one) => {
        const taken = copyLaneRange(piece, one, range.start, range.end);
        return taken && pasteLaneRange(piece, one.target, range.start, how(taken, piece), 1, one.id);
      }),
      what,
    );
  const repeat = (): boolean =>
    lay(
      treated.map((one) => {
        const taken = copyLaneRange(piece, one, range.start, range.end);
        return taken && pasteLaneRange(piece, one.target, range.end, taken, 1, one.id);
      }),
      'Repeat moves',
    );
  const step = snap.kind === 'grid' ? snap.beats : NUDGE_BEATS;
  const stepName =
    snap.kind === 'grid' && snap.beats >= 1
      ? `${snap.beats} ${snap.beats === 1 ? 'beat' : 'beats'}`
      : `1/${Math.round(4 / step)}`;
  /** Moves the points of the stretch elsewhere; the base value takes their place. */
  const relaid = (at: number, how: (stretch: LaneRange) => LaneRange, what: string): boolean =>
    lay(
      treated.map((one) => {
        const taken = copyLaneRange(piece, one, range.start, range.end);
        const cleared = clearLaneRange(piece, one, range.start, range.end);
        return (
          taken &&
          cleared &&
          pasteLaneRange(
            { ...piece, lanes: piece.lanes.map((other) => (other.id === one.id ? cleared : other)) },
            one.target,
            at,
            how(taken),
            1,
            one.id,
          )
        );
      }),
      what,
    );
  const nudge = (by: number): void => {
    if (relaid(range.start + by, (taken) => taken, by < 0 ? 'Earlier' : 'Later'))
      useView.setState({ range: { start: range.start + by, end: range.end + by } });
  };
  const stretchTime = (factor: number): void => {
    const end = range.start + (range.end - range.start) * factor;
    if (relaid(range.start, (taken) => stretchedBy(taken, factor), factor > 1 ? 'Half as fast' : 'Twice as fast'))
      useView.setState({ range: { start: range.start, end } });
  };
  const paste = (): boolean => {
    const at = Math.round(studio.beat * 64) / 64;
    const targets = clipboard.length === 1 ? treated : lanes;
    const laid = targets.map((one, i) =>
      clipboard.length === 1 || i < clipboard.length
        ? pasteLaneRange(piece, one.target, at, clipboard[clipboard.length === 1 ? 0 : i]!, 1, one.id, pasteBy)
        : null,
    );
    const done = lay(laid, 'Paste moves');
    if (done) say(`Pasted from bar ${toBarBeat(at, tempoOf(piece)).bar} on`);
    return done;
  };
  useEffect(() => provideStretchActions({ copy, clear, paste, repeat }));
  const said = (beat: number): string => {
    const { bar, beat: within } = toBarBeat(beat, tempoOf(piece));
    return `${bar}.${within}`;
  };
  const carrying = (
    <>
      <Button label="Copy moves" icon="copy" onPress={copy}>
        copy
      </Button>
      <Button label="Cut moves" icon="scissors" onPress={() => copy() && clear()}>
        cut
      </Button>
      <Button label="Paste moves at the playhead" icon="clipboard" disabled={clipboard.length === 0} onPress={paste}>
        paste here
      </Button>
      <Button label="Repeat moves after the stretch" onPress={repeat}>
        repeat
      </Button>
      <Button label="Clear moves in the stretch" onPress={clear}>
        clear
      </Button>
      <DrawShape
        range={range}
        onDraw={(stretch, name) =>
          lay(
            treated.map((one) => pasteLaneRange(piece, one.target, range.start, stretch, 1, one.id)),
            `Draw ${name}`,
          )
        }
      />
    </>
  );
  const changing = (
    <>
      <Button label="Earlier: moves in the stretch" disabled={range.start - step < 0} onPress={() => nudge(-step)}>
        earlier
      </Button>
      <Button label="Later: moves in the stretch" onPress={() => nudge(step)}>
        later
      </Button>
      <Button
        label="Quantise: moves in the stretch"
        onPress={() => change((taken) => quantised(taken, step, range.start), 'Quantise')}
      >{`to ${stepName}`}</Button>
      <Button label="Half as fast: moves in the stretch" onPress={() => stretchTime(2)}>
        × 2 long
      </Button>
      <Button label="Twice as fast: moves in the stretch" onPress={() => stretchTime(0.5)}>
        ÷ 2 short
      </Button>
      {CHANGES.map(([label, text, how]) => (
        <Button key={label} label={`${label}: moves in the stretch`} onPress={() => change(how, label)}>
          {text}
        </Button>
      ))}
      <Button
        label={`Paste by ${pasteBy === 'position' ? 'place on the rail' : 'value'}. Change`}
        onPress={() => useClipboard.setState({ pasteBy: pasteBy === 'position' ? 'value' : 'position' })}
      >
        {pasteBy === 'position' ? 'paste by place' : 'paste by value'}
      </Button>
    </>
  );
  const param = paramOf(piece, lane.target);
  return (
    <Surface
      elevation={0}
      role="toolbar"
      aria-label="Tools for the chosen stretch"
      style={[styles.tools, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      <View style={styles.head}>
        <Text
          variant="titleSmall"
          tone="coralInk"
          numberOfLines={1}
          style={styles.title}
        >{`∿ ${said(range.start)} to ${said(range.end)}, ${treated.length > 1 ? `${treated.length} lanes` : param ? laneName(piece, lane, param) : ''}`}</Text>
        {lanes.length > 1 ? (
          <Chip
            role="switch"
            label="All lanes of this channel"
            chosen={all}
            tone="coralInk"
            onPress={() => setPicked(all ? [] : lanes.map(({ id }) => id))}
          >
            {all ? 'all lanes' : 'this lane'}
          </Chip>
        ) : null}
        <IconButton icon="x" label="Let go of the stretch" onPress={() => useView.setState({ range: null })} />
      </View>
      {lanes.length > 2 ? (
        <ScrollView
          horizontal
          showsHorizontalScrollIndicator={false}
          role="group"
          aria-label="Lanes of the stretch"
          contentContainerStyle={styles.row}
        >
          {lanes.map((one) => {
            const about = paramOf(piece, one.target);
            const chosen = treated.includes(one);
            return about ? (
              <Chip
                key={one.id}
                role="switch"
                label={`${laneName(piece, one, about)} in the stretch`}
                chosen={chosen}
                tone={chosen ? 'coralInk' : 'mute'}
                onPress={() => pick(one.id)}
              >{`${chosen ? '∿ ' : ''}${laneName(piece, one, about)}`}</Chip>
            ) : null;
          })}
        </ScrollView>
      ) : null}
      <Row>
        {carrying}
        {wide ? null : changing}
      </Row>
      {wide ? <Row>{changing}</Row> : null}
    </Surface>
  );
}

function Row({ children }: { readonly children: ReactNode }) {
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.row}>
      {children}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  tools: { gap: 6, paddingHorizontal: 14, paddingVertical: 8, borderTopWidth: 1 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  title: { flex: 1 },
  row: { flexDirection: 'row', gap: 8 },
});
