import { ScrollView, StyleSheet, View } from 'react-native';
import { noteId, nearestNote, type NoteFeel } from '../../core/music/noteValue';
import { secondsPerBeat } from '../../core/music/tempo';
import { describeTime, formatNumber, formatValue } from '../../core/params/format';
import { scaledTime } from '../../core/params/notches';
import type { NumberParam, ParamValue } from '../../core/params/param';
import { resolveNumber, syncedNote } from '../../core/params/resolve';
import { contextOf } from '../../core/piece/find';
import type { Target } from '../../core/piece/piece';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { useHand, usePiece } from '../studio/StudioProvider';

const FEELS: readonly NoteFeel[] = ['straight', 'dotted', 'triplet'];

/** Half and double, straight, dotted and triplet, and the time in all three measures. */
export function TimeTools({
  param,
  spoken,
  value,
  target,
}: {
  readonly param: NumberParam;
  /** Name of the parameter, before those of its tools. */
  readonly spoken: string;
  readonly value: ParamValue;
  readonly target: Target;
}) {
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
        <Button
          label={`${spoken}: half`}
          style={styles.tool}
          onPress={() => hand.release(scaledTime(param, value, context, 0.5))}
        >
          ÷ 2
        </Button>
        <Button
          label={`${spoken}: double`}
          style={styles.tool}
          onPress={() => hand.release(scaledTime(param, value, context, 2))}
        >
          × 2
        </Button>
        {param.ladder ? null : (
          <View role="radiogroup" aria-label={`${spoken}: feel`} style={styles.feels}>
            {FEELS.map((name) => (
              <Chip
                key={name}
                role="radio"
                label={`${spoken}: ${name}`}
                chosen={note?.feel === name}
                dense
                tone="sea"
                style={styles.tool}
                onPress={() => feel(name)}
              >
                {name}
              </Chip>
            ))}
          </View>
        )}
      </View>
      {param.ladder ? <Ladder param={param} spoken={spoken} value={value} target={target} /> : null}
      <Text variant="bodySmall">
        {ms === 0
          ? 'at once · 0 ms · 0 samples'
          : `${about.exact ? about.note : `near ${about.note}`} · ${about.ms} · ${about.samples}`}
      </Text>
    </View>
  );
}

/** Note values at the tempo, each half of the one before, with its time; the chosen one is marked. */
function Ladder({
  param,
  spoken,
  value,
  target,
}: {
  readonly param: NumberParam;
  readonly spoken: string;
  readonly value: ParamValue;
  readonly target: Target;
}) {
  const tokens = useTokens();
  const context = contextOf(usePiece());
  const hand = useHand(target);
  const steps = param.ladder!.filter(
    (note) => resolveNumber({ ...param, min: 0, max: Infinity }, note, context) <= param.max,
  );
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      role="radiogroup"
      aria-label={`${spoken} from the tempo`}
      contentContainerStyle={styles.ladder}
    >
      {param.min === 0 ? (
        <Chip role="radio" label={`${spoken}: none`} chosen={value === 0} tone="sea" onPress={() => hand.release(0)}>
          none
        </Chip>
      ) : null}
      {steps.map((note) => (
        <Touchable
          key={note}
          role="radio"
          label={`${spoken}: ${formatValue(param, note, context)}`}
          chosen={value === note}
          mode="outlined"
          tone="sea"
          onPress={() => hand.release(note)}
        >
          <Text
            style={value === note ? { color: tokens.paper } : undefined}
            variant="bodySmall"
            tone="ink"
          >{`${note} · ${formatNumber(param, resolveNumber(param, note, context))}`}</Text>
        </Touchable>
      ))}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  ladder: { gap: 6, paddingBottom: 6 },
  tools: { flexDirection: 'row', gap: 6, marginBottom: 6 },
  feels: { flexGrow: 3, flexBasis: 0, flexDirection: 'row', gap: 6 },
  tool: { flexGrow: 1, flexBasis: 0, borderRadius: 12 },
});
