import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { clearLanes } from '../../core/piece/edits/lanes';
import { channelName, paramOf } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { type LanesShown, useView } from '../../data/view';
import { DotChoice } from '../../ui/DotChoice';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { laneName } from '../shared/controller/laneName';

interface ShowButtonProps {
  readonly channel: string;
  /** All lanes of the channel, in view or not. */
  readonly lanes: readonly Lane[];
  /** How many of them are in view. */
  readonly shown: number;
}

const WAYS: readonly { readonly id: LanesShown; readonly name: string; readonly says: string }[] = [
  { id: 'all', name: 'All with moves', says: 'every lane of the channel' },
  { id: 'chosen', name: 'Chosen', says: 'those that are switched on below' },
  { id: 'touched', name: 'Just touched', says: 'the lane of the rail your hand was on last' },
];

const SHORT: Record<LanesShown, string> = { all: 'all', chosen: 'chosen', touched: 'touched' };

/** Which lanes are in view, folding them all, and clearing many at once. */
export function ShowButton({ channel, lanes, shown }: ShowButtonProps) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const lanesShown = useView((view) => view.lanesShown);
  const chosenLanes = useView((view) => view.chosenLanes);
  const foldedLanes = useView((view) => view.foldedLanes);
  const folded = lanes.every(({ id }) => foldedLanes.includes(id));
  const name = channelName(piece, channel);
  const pick = (id: string): void =>
    useView.setState({
      chosenLanes: chosenLanes.includes(id) ? chosenLanes.filter((other) => other !== id) : [...chosenLanes, id],
    });
  const choose = (to: LanesShown): void =>
    useView.setState({
      lanesShown: to,
      ...(to === 'chosen' && chosenLanes.length === 0 ? { chosenLanes: lanes.map(({ id }) => id) } : {}),
    });
  const clear = (from: string | null): void => {
    const gone = from === null ? piece.lanes.length : lanes.length;
    const { run, say } = useOpenPiece.getState();
    if (run(clearLanes, { channel: from }))
      say(`${gone} ${gone === 1 ? 'lane' : 'lanes'} cleared. Undo brings ${gone === 1 ? 'it' : 'them'} back.`);
    setOpen(false);
  };
  return (
    <>
      <Button
        label={`Lanes in view: ${SHORT[lanesShown]}, ${shown} of ${lanes.length}. Change`}
        icon="layers"
        tone="coralInk"
        onPress={() => setOpen(true)}
      >
        {shown === lanes.length ? SHORT[lanesShown] : `${shown} of ${lanes.length}`}
      </Button>
      <Sheet title="Lanes in view" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.body}>
          <View role="radiogroup" aria-label="Lanes in view">
            {WAYS.map(({ id, name: way, says }) => (
              <DotChoice key={id} name={way} says={says} chosen={id === lanesShown} onPress={() => choose(id)} />
            ))}
          </View>
          {lanesShown === 'chosen' ? (
            <View role="group" aria-label="Chosen lanes" style={styles.chips}>
              {lanes.map((lane) => {
                const param = paramOf(piece, lane.target);
                const on = chosenLanes.includes(lane.id);
                return param ? (
                  <Chip
                    key={lane.id}
                    role="switch"
                    label={`${laneName(piece, lane, param)} in view`}
                    chosen={on}
                    tone={on ? 'coralInk' : 'mute'}
                    onPress={() => pick(lane.id)}
                  >{`${on ? '∿ ' : ''}${laneName(piece, lane, param)}`}</Chip>
                ) : null;
              })}
            </View>
          ) : null}
          <View style={styles.chips}>
            <Button
              label={folded ? 'Open all lanes' : 'Fold all lanes'}
              icon={folded ? 'chevrons-down' : 'chevrons-up'}
              onPress={() => useView.setState({ foldedLanes: folded ? [] : lanes.map(({ id }) => id) })}
            >
              {folded ? 'open all' : 'fold all'}
            </Button>
          </View>
          <Text variant="headlineSmall" tone="coralInk" style={styles.heading}>
            Clear
          </Text>
          <View style={styles.chips}>
            <Button
              label={`Clear all moves of ${name}`}
              icon="trash-2"
              tone="danger"
              disabled={lanes.length === 0}
              onPress={() => clear(channel)}
            >{`moves of ${name}`}</Button>
            <Button
              label="Clear all moves of the piece"
              icon="trash-2"
              tone="danger"
              disabled={piece.lanes.length === 0}
              onPress={() => clear(null)}
            >
              of the piece
            </Button>
          </View>
          <Text variant="bodySmall" style={styles.says}>
            What was moved goes back to where its rail stands. One undo brings all of it back.
          </Text>
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 560 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 6 },
  heading: { marginTop: 8 },
  says: { marginTop: 4 },
});
