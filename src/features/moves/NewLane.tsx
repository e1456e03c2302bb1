import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { basePosition, laneUnit, valueInUnit } from '../../core/moves/lane';
import { formatValue } from '../../core/params/format';
import type { Param } from '../../core/params/param';
import { recordMove } from '../../core/piece/edits/lanes';
import { baseValue, chainOf, channelName, contextOf, findChannel, findLane, slotsIn } from '../../core/piece/find';
import { channelParams, MAIN, SEND_LEVEL, sendParam, type Piece, type Target } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';

interface Choice {
  readonly target: Target;
  readonly param: Param;
}

interface Family {
  readonly title: string;
  readonly choices: readonly Choice[];
}

/** Everything of a channel that can be moved and has no lane yet. */
function familiesOf(piece: Piece, channel: string): Family[] {
  const free = (choices: readonly Choice[]): Choice[] => choices.filter(({ target }) => !findLane(piece, target));
  const own = Object.entries(channelParams).filter(([id]) => channel !== MAIN || id === 'gain');
  return [
    ...slotsIn(chainOf(piece, channel)).map((slot) => ({
      title: effectOf(slot.effect).name,
      choices: free(Object.entries(effectOf(slot.effect).params).map(([param, about]) => ({ target: { channel, effect: slot.id, param }, param: about }))),
    })),
    { title: 'Sends', choices: free((findChannel(piece, channel)?.sends ?? []).map((send) => ({ target: { channel, effect: null, param: sendParam(send.to) }, param: { ...SEND_LEVEL, label: `Send to ${channelName(piece, send.to)}` } }))) },
    { title: 'Channel', choices: free(own.map(([param, about]) => ({ target: { channel, effect: null, param }, param: about }))) },
  ].filter((family) => family.choices.length > 0);
}

/** Adds a lane by hand, standing at the value the parameter has. */
export function NewLane({ channel, onAdded }: { readonly channel: string; readonly onAdded: (lane: string) => void }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const add = ({ target, param }: Choice): void => {
    const unit = laneUnit(piece, target);
    const value = valueInUnit(piece, param, basePosition(piece, target, param), unit);
    const id = crypto.randomUUID();
    if (useOpenPiece.getState().run(recordMove, { lane: { id, target, unit, on: true, points: [{ beat: 0, value, shape: 'line', bend: 0 }] }, how: 'draw' })) onAdded(id);
    setOpen(false);
  };
  return (
    <>
      <Tap icon="plus" text="Lane" label="Add a lane by hand" tone="coralInk" onPress={() => setOpen(true)} />
      <Sheet title="A lane for" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {familiesOf(piece, channel).map((family) => (
            <View key={family.title}>
              <Words kind="water">{family.title}</Words>
              {family.choices.map((choice) => (
                <Tap key={choice.target.param} plain label={`Lane for ${family.title} ${choice.param.label}`} onPress={() => add(choice)} style={styles.item}>
                  <View style={styles.row}>
                    <Words>{choice.param.label}</Words>
                    <Words kind="small">{formatValue(choice.param, baseValue(piece, choice.target) ?? choice.param.initial, contextOf(piece))}</Words>
                  </View>
                </Tap>
              ))}
            </View>
          ))}
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 560 },
  item: { alignItems: 'stretch', paddingHorizontal: 0 },
  row: { flexDirection: 'row', justifyContent: 'space-between', gap: 12 },
});
