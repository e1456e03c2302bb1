import { StyleSheet, View } from 'react-native';
import { noteId, nearestNote, type NoteFeel } from '../../core/music/noteValue';
import { secondsPerBeat } from '../../core/music/tempo';
import { describeTime } from '../../core/params/format';
import { scaledTime } from '../../core/params/notches';
import type { NumberParam, ParamValue } from '../../core/params/param';
import { resolveNumber, syncedNote } from '../../core/params/resolve';
import { contextOf } from '../../core/piece/find';
import type { Target } from '../../core/piece/piece';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { useHand, usePiece } from '../studio/StudioProvider';

const FEELS: readonly NoteFeel[] = ['straight', 'dotted', 'triplet'];

/** Half and double, straight, dotted and triplet, and the time in all three measures. */
export function TimeTools({ param, value, target }: { readonly param: NumberParam; readonly value: ParamValue; readonly target: Target }) {
  const piece = usePiece();
  const context = contextOf(piece);
  const hand = useHand(target);
  const ms = resolveNumber(param, value, context);
  const about = describeTime(ms, context);
  const note = syncedNote(value);
  const feel = (wanted: NoteFeel): void => {
    const base = note ?? nearestNote(ms / 1000 / secondsPerBeat(context.tempo), context.tempo.beatsPerBar);
    hand.release(noteId({ base: base.base, feel: wanted }));
  };
  return (
    <View>
      <View style={styles.tools}>
        <Tap label={`${param.label}: half`} text="÷ 2" onPress={() => hand.release(scaledTime(param, value, context, 0.5))} style={styles.tool} />
        <Tap label={`${param.label}: double`} text="× 2" onPress={() => hand.release(scaledTime(param, value, context, 2))} style={styles.tool} />
        <View role="radiogroup" aria-label={`${param.label}: feel`} style={styles.feels}>
          {FEELS.map((name) => (
            <Tap key={name} role="radio" label={`${param.label}: ${name}`} text={name} tone="sea" chosen={note?.feel === name} onPress={() => feel(name)} style={styles.tool} />
          ))}
        </View>
      </View>
      <Words kind="small">{`${about.exact ? about.note : `near ${about.note}`} · ${about.ms} · ${about.samples}`}</Words>
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 6, marginBottom: 6 },
  feels: { flexGrow: 3, flexBasis: 0, flexDirection: 'row', gap: 6 },
  tool: { flexGrow: 1, flexBasis: 0, paddingHorizontal: 2, borderRadius: 12 },
});
