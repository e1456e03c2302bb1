import { StyleSheet, View } from 'react-native';
import Svg, { Line } from 'react-native-svg';
import { effectOf } from '../../core/effects/catalogue';
import { isVisible } from '../../core/effects/visibleWhen';
import { formatValue } from '../../core/params/format';
import { baseValue, chainOf, contextOf, targetKey } from '../../core/piece/find';
import { basePosition } from '../../core/piece/moves/lane';
import { channelParams, type Piece } from '../../core/piece/piece';
import { usePreferences } from '../../data/preferences';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens } from '../../ui/theme';
import { laneName } from '../shared/controller/laneName';
import { usePiece } from '../studio/StudioProvider';
import { namedParam } from '../../core/piece/paramName';
import type { TargetChoice } from '../studio/targets';
import { leadingParams } from './leadingParams';
import { addLane } from './NewLane';

const HEIGHT = 56;
const PAD = 8;

interface OfferedLanesProps {
  readonly channel: string;
  /** At most so many of them. */
  readonly most: number;
  readonly onAdded: (lane: string) => void;
}

/** Lanes that could be there: the main parameters of a channel's effects, and its level, at their present values. */
export function OfferedLanes({ channel, most, onAdded }: OfferedLanesProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const pinned = usePreferences((preferences) => preferences.pinned);
  const add = (choice: TargetChoice): void => {
    const id = addLane(piece, choice);
    if (id) onAdded(id);
  };
  return (
    <View role="group" aria-label="Lanes to begin with" style={styles.all}>
      {offered(piece, channel, pinned)
        .slice(0, most)
        .map((choice) => {
          const { target, param } = choice;
          const name = laneName(piece, { target }, param);
          const y = PAD + (1 - basePosition(piece, target, param)) * (HEIGHT - 2 * PAD);
          const value = formatValue(param, baseValue(piece, target) ?? param.initial, contextOf(piece));
          return (
            <Touchable
              key={targetKey(target)}
              label={`Begin a lane for ${name}, now ${value}`}
              style={styles.lane}
              onPress={() => add(choice)}
            >
              <View style={styles.words}>
                <Text tone="coralInk">{`+ ${name}`}</Text>
                <Text variant="bodySmall">{value}</Text>
              </View>
              <View style={[styles.field, { backgroundColor: tokens.card }]}>
                <Svg width="100%" height={HEIGHT}>
                  <Line x1={0} x2="100%" y1={y} y2={y} stroke={tokens.coral} strokeWidth={1.6} strokeDasharray="3 7" />
                </Svg>
              </View>
            </Touchable>
          );
        })}
    </View>
  );
}

/** The level of the channel, then one parameter of each effect in turn: all of a long chain is offered. */
function offered(piece: Piece, channel: string, pinned: Readonly<Record<string, readonly string[]>>): TargetChoice[] {
  const byEffect = chainOf(piece, channel).map((slot) => {
    const definition = effectOf(slot.effect);
    return leadingParams(piece, channel, slot, pinned[slot.effect] ?? [])
      .filter((param) => isVisible(definition, param, slot))
      .map((param): TargetChoice => ({
        target: { kind: 'effect', channel, effect: slot.id, param },
        param: namedParam(slot, param)!,
      }));
  });
  const longest = Math.max(0, ...byEffect.map(({ length }) => length));
  const inTurn = Array.from({ length: longest }, (_, i) => byEffect.flatMap((choices) => choices[i] ?? [])).flat();
  return [{ target: { kind: 'channel', channel, param: 'gain' }, param: channelParams.gain }, ...inTurn];
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  lane: { alignItems: 'stretch', paddingHorizontal: 0, borderRadius: 10 },
  words: { flexDirection: 'row', justifyContent: 'space-between', paddingHorizontal: 4 },
  field: { height: HEIGHT, borderRadius: 10, overflow: 'hidden' },
});
