import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { passLaid, withoutPasses } from '../../core/piece/moves/takes';
import { layMoves } from '../../core/piece/edits/lanes';
import { paramOf } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { type Take, useRecording } from '../../data/recording';
import { useView } from '../../data/view';
import { DotChoice } from '../../ui/DotChoice';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { PlayLine } from '../shared/shell/PlayLine';
import { usePiece } from '../studio/StudioProvider';
import { laneName } from '../shared/controller/laneName';

const NONE: readonly Take[] = [];

/** Opens the passes recorded of a lane: to hear one in the place of another, or to join parts of them. */
export function PassesButton({ lane }: { readonly lane: Lane }) {
  const piece = usePiece();
  const passes = useRecording((recording) => recording.passes[lane.id]) ?? NONE;
  const [open, setOpen] = useState(false);
  const param = paramOf(piece, lane.target);
  if (passes.length === 0 || !param) return null;
  return (
    <>
      <Button
        label={`Takes of ${laneName(piece, lane, param)}: ${passes.length}`}
        tone="coralInk"
        onPress={() => setOpen(true)}
      >
        {passes.length === 1 ? '1 take' : `${passes.length} takes`}
      </Button>
      <Sheet title={`Takes of ${laneName(piece, lane, param)}`} visible={open} onClose={() => setOpen(false)}>
        <Passes lane={lane} passes={passes} />
      </Sheet>
    </>
  );
}

function Passes({ lane, passes }: { readonly lane: Lane; readonly passes: readonly Take[] }) {
  const piece = usePiece();
  const range = useView((view) => view.range);
  const seamBeats = useRecording((recording) => recording.seamBeats);
  const [heard, setHeard] = useState<number | null>(passes.length - 1);
  const said = (beat: number): string => {
    const { bar, beat: within } = toBarBeat(beat, tempoOf(piece));
    return `${bar}.${within}`;
  };
  const all = passes.map(({ readings }) => readings);
  const lay = (made: Lane | null, what: string): boolean =>
    made !== null && useOpenPiece.getState().run(layMoves, { lanes: [made], what });
  const choose = (index: number | null): void => {
    const take = index === null ? undefined : passes[index]!;
    if (take && range) {
      if (
        lay(
          passLaid(piece, lane.target, take.readings, range, lane.id, { tolerance: take.tolerance, seamBeats }),
          `Join take ${index! + 1}`,
        )
      )
        setHeard(index);
      return;
    }
    const cleared = withoutPasses(piece, lane, passes[0]!.before, all, seamBeats);
    const without = cleared && {
      ...piece,
      lanes: piece.lanes.map((other) => (other.id === lane.id ? cleared : other)),
    };
    const made =
      take && without
        ? passLaid(without, lane.target, take.readings, null, lane.id, { tolerance: take.tolerance, seamBeats })
        : cleared;
    if (lay(made, take ? `Take ${index! + 1}` : 'Leave all takes')) setHeard(index);
  };
  return (
    <View style={styles.body}>
      <PlayLine
        says={
          range
            ? `Choosing lays a take into ${said(range.start)} to ${said(range.end)} alone: parts of several are joined so.`
            : 'Choosing lays a take in the place of the others. Choose a stretch on the ruler to join parts.'
        }
      />
      <ScrollView style={styles.list}>
        <View role="radiogroup" aria-label="Take">
          {range ? null : (
            <DotChoice
              name="As before recording"
              says="none of the takes"
              chosen={heard === null}
              onPress={() => choose(null)}
            />
          )}
          {passes.map((take, index) => {
            const beats = take.readings.map(({ beat }) => beat);
            const [from, to] = [
              beats.reduce((a, b) => Math.min(a, b), Infinity),
              beats.reduce((a, b) => Math.max(a, b), 0),
            ];
            return (
              <DotChoice
                key={index}
                name={`Take ${index + 1}`}
                says={`${said(from)} to ${said(to)} · ${take.readings.length} readings`}
                chosen={heard === index}
                onPress={() => choose(index)}
              />
            );
          })}
        </View>
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  body: { gap: 6 },
  list: { maxHeight: 480 },
});
