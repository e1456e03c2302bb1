import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { basePosition, laneUnit, valueInUnit } from '../../core/piece/moves/lane';
import { formatValue } from '../../core/params/format';
import { recordMove } from '../../core/piece/edits/lanes';
import { baseValue, contextOf, findLane, targetKey } from '../../core/piece/find';
import type { Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { targetsOf, type TargetChoice } from '../studio/targets';
import { usePiece } from '../studio/StudioProvider';
import { newId } from '../../data/newId';

/** Puts a lane into the piece, at the parameter's present value. @returns its id; null when it was refused */
export function addLane(piece: Piece, { target, param }: TargetChoice): string | null {
  const unit = laneUnit(piece, target);
  const value = valueInUnit(piece, param, basePosition(piece, target, param), unit);
  const id = newId();
  if (
    !useOpenPiece.getState().run(recordMove, {
      lane: { id, target, unit, on: true, points: [{ beat: 0, value, shape: 'line', bend: 0 }] },
      how: 'draw',
    })
  )
    return null;
  // A lane made by hand is in view, whichever lanes are.
  const { lanesShown, chosenLanes } = useView.getState();
  if (lanesShown === 'chosen') useView.setState({ chosenLanes: [...chosenLanes, id] });
  if (lanesShown === 'touched') useView.setState({ touched: target });
  return id;
}

/** Adds a lane by hand. */
export function NewLane({ channel, onAdded }: { readonly channel: string; readonly onAdded: (lane: string) => void }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const add = (choice: TargetChoice): void => {
    const id = addLane(piece, choice);
    if (id) onAdded(id);
    setOpen(false);
  };
  return (
    <>
      <Button label="Add a lane by hand" icon="plus" tone="coralInk" onPress={() => setOpen(true)}>
        Lane
      </Button>
      <Sheet title="A lane for" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {targetsOf(piece, channel, (target) => !findLane(piece, target)).map((family) => (
            <View key={family.title}>
              <Text variant="headlineSmall">{family.title}</Text>
              {family.choices.map((choice) => (
                <Touchable
                  key={targetKey(choice.target)}
                  label={`Lane for ${family.title} ${choice.param.label}`}
                  style={styles.item}
                  onPress={() => add(choice)}
                >
                  <View style={styles.row}>
                    <Text>{choice.param.label}</Text>
                    <Text variant="bodySmall">
                      {formatValue(
                        choice.param,
                        baseValue(piece, choice.target) ?? choice.param.initial,
                        contextOf(piece),
                      )}
                    </Text>
                  </View>
                </Touchable>
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
