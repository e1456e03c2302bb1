import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useShallow } from 'zustand/react/shallow';
import { clearLanes } from '../../core/piece/edits/lanes';
import { channelName, paramOf } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession, type LanesShown } from '../../data/session';
import { DotChoice } from '../../ui/DotChoice';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';
import { laneName } from './laneName';

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
  const { lanesShown, chosenLanes, foldedLanes, set } = useSession(
    useShallow((session) => ({
      lanesShown: session.lanesShown,
      chosenLanes: session.chosenLanes,
      foldedLanes: session.foldedLanes,
      set: session.set,
    })),
  );
  const folded = lanes.every(({ id }) => foldedLanes.includes(id));
  const name = channelName(piece, channel);
  const pick = (id: string): void =>
    set({ chosenLanes: chosenLanes.includes(id) ? chosenLanes.filter((other) => other !== id) : [...chosenLanes, id] });
  const choose = (to: LanesShown): void =>
    set({
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
      <Tap
        text={shown === lanes.length ? SHORT[lanesShown] : `${shown} of ${lanes.length}`}
        icon="layers"
        label={`Lanes in view: ${SHORT[lanesShown]}, ${shown} of ${lanes.length}. Change`}
        tone="coralInk"
        onPress={() => setOpen(true)}
      />
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
                  <Tap
                    key={lane.id}
                    role="switch"
                    chosen={on}
                    tone={on ? 'coralInk' : 'mute'}
                    label={`${laneName(piece, lane, param)} in view`}
                    text={`${on ? '∿ ' : ''}${laneName(piece, lane, param)}`}
                    onPress={() => pick(lane.id)}
                  />
                ) : null;
              })}
            </View>
          ) : null}
          <View style={styles.chips}>
            <Tap
              icon={folded ? 'chevrons-down' : 'chevrons-up'}
              text={folded ? 'open all' : 'fold all'}
              label={folded ? 'Open all lanes' : 'Fold all lanes'}
              onPress={() => set({ foldedLanes: folded ? [] : lanes.map(({ id }) => id) })}
            />
          </View>
          <Words kind="water" tone="coralInk" style={styles.heading}>
            Clear
          </Words>
          <View style={styles.chips}>
            <Tap
              icon="trash-2"
              tone="danger"
              text={`moves of ${name}`}
              label={`Clear all moves of ${name}`}
              disabled={lanes.length === 0}
              onPress={() => clear(channel)}
            />
            <Tap
              icon="trash-2"
              tone="danger"
              text="of the piece"
              label="Clear all moves of the piece"
              disabled={piece.lanes.length === 0}
              onPress={() => clear(null)}
            />
          </View>
          <Words kind="small" style={styles.says}>
            What was moved goes back to where its rail stands. One undo brings all of it back.
          </Words>
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
