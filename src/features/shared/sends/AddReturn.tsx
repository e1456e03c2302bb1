import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { fitted, newSlot } from '../../../core/piece/edits/chain';
import { addReturn, addSharedReturns } from '../../../core/piece/edits/sends';
import { freeName } from '../../../core/piece/freeName';
import { newReturn, type Piece, type Return } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { ListItem } from '../../../ui/ListItem';
import { newId } from '../../../data/newId';

/** -12 dB: audible, and no more. */
const SHARED_LEVEL = 0.25;

interface Start {
  readonly name: string;
  readonly purpose: string;
  readonly effect: readonly [string, string] | null;
}

const SPACE: Start = {
  name: 'Space',
  purpose: 'One reverb for many: puts all parts into the same place.',
  effect: ['reverb', 'openWater'],
};
const ECHO: Start = {
  name: 'Echo',
  purpose: 'One echo in time for many, to be ridden and thrown into.',
  effect: ['echo', 'callAcross'],
};
const STARTS: readonly Start[] = [
  SPACE,
  ECHO,
  { name: 'Bloom', purpose: 'A cluster of taps; put a long reverb after it.', effect: ['taps', 'spray'] },
  { name: 'Return', purpose: 'Empty: build a chain of your own.', effect: null },
];

/** A return with a name no other has. */
function returnFor(piece: Piece, { name, effect }: Start): Return {
  const free = freeName(
    name,
    piece.returns.map((made) => made.name),
  );
  const made = newReturn(newId(), free);
  if (!effect) return made;
  const slot = newSlot(newId(), effect[0], effect[1]);
  return { ...made, chain: [fitted({ returns: [made] }, made.id, slot)] };
}

/** Adds a return, chosen by its purpose. */
export function AddReturn() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button label="Add a return" icon="plus" onPress={() => setOpen(true)}>
        Return
      </Button>
      <Sheet title="A return for" visible={open} onClose={() => setOpen(false)}>
        <ReturnChoices onAdded={() => setOpen(false)} />
      </Sheet>
    </>
  );
}

/** The purposes of returns; a tap adds one. */
export function ReturnChoices({ onAdded }: { readonly onAdded: () => void }) {
  const add = (start: Start): void => {
    const { piece, run } = useOpenPiece.getState();
    if (piece && run(addReturn, { made: returnFor(piece, start) })) onAdded();
  };
  const share = (): void => {
    const { piece, run } = useOpenPiece.getState();
    const made = piece ? [ECHO, SPACE].map((start) => returnFor(piece, start)) : [];
    if (run(addSharedReturns, { made, level: SHARED_LEVEL })) onAdded();
  };
  return (
    <>
      <ListItem
        title="Echo and space for all"
        note="Two returns that every track sends a little to: all parts stand in one place."
        label="Add an echo and a space that every track sends to"
        variant="headlineSmall"
        style={styles.item}
        onPress={share}
      />
      {STARTS.map((start) => (
        <ListItem
          key={start.name}
          title={start.name}
          note={start.purpose}
          label={`Add return: ${start.name}`}
          variant="headlineSmall"
          style={styles.item}
          onPress={() => add(start)}
        />
      ))}
    </>
  );
}

const styles = StyleSheet.create({ item: { alignItems: 'flex-start', paddingHorizontal: 0, paddingVertical: 8 } });
