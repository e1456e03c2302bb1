import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { makeModulator, type Modulator, type ModulatorKind } from '../../../core/automation/modulator';
import { orderHoldParams } from '../../../core/effects/hold/params';
import type { Param } from '../../../core/params/param';
import { addLink } from '../../../core/piece/edits/links';
import { effectOfTarget, sameTarget, targetKey } from '../../../core/piece/find';
import type { Piece, Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { targetsOf, type TargetChoice } from '../../studio/targets';
import { usePiece } from '../../studio/StudioProvider';
import { isHold, KIND_NAMES, kindsFor } from './kinds';
import { newId } from '../../../data/newId';

const START_DEPTH = 0.2;
const START_RATES: Partial<Record<ModulatorKind, string>> = { steps: '1/8', drift: '1/4', run: '1/8' };

/** A modulator with a name no other of the piece has. */
function newModulator(piece: Piece, kind: ModulatorKind, channel: string, target: Target): Modulator {
  const taken = new Set(piece.modulators.map(({ name }) => name));
  let n = 1;
  while (taken.has(`${KIND_NAMES[kind]} ${n}`)) n += 1;
  return makeModulator(kind, {
    id: newId(),
    name: `${KIND_NAMES[kind]} ${n}`,
    rate: START_RATES[kind] ?? '1/2',
    roll: Math.floor(Math.random() * 0xffffffff),
    hold: effectOfTarget(target) ?? undefined,
    follows: (piece.tracks.find(({ id }) => id !== channel) ?? piece.tracks[0])?.id,
  });
}

/** Whether a link can modulate it: its values are ordered. */
const isTurned = (param: Param): boolean =>
  param.kind === 'number' || (param.kind === 'choice' && param.ordered === true);

/** Chooses a parameter, then its modulator: a new one, or one of the piece. */
export function NewLink({ channel, effect }: { readonly channel: string; readonly effect?: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const [choice, setChoice] = useState<TargetChoice | null>(null);
  const families = targetsOf(
    piece,
    channel,
    (target, param) =>
      isTurned(param) && target.kind !== 'tempo' && (effect === undefined || effectOfTarget(target) === effect),
  );
  const ofHold = effect !== undefined && isHold(piece, channel, effect);
  const close = (): void => {
    setOpen(false);
    setChoice(null);
  };
  const link = (modulator: Modulator): void => {
    if (
      choice &&
      useOpenPiece.getState().run(addLink, {
        modulator,
        link: { id: newId(), modulator: modulator.id, target: choice.target, depth: START_DEPTH },
      })
    )
      close();
  };
  const kinds = choice ? kindsFor(piece, choice.target) : [];
  const others = choice
    ? piece.modulators.filter(
        ({ id, kind }) =>
          kinds.includes(kind) &&
          !piece.links.some((made) => made.modulator === id && sameTarget(made.target, choice.target)),
      )
    : [];
  return (
    <>
      <Button icon="plus" tone="coralInk" style={styles.add} onPress={() => setOpen(true)}>
        Link a rail
      </Button>
      <Sheet
        title={choice ? `What turns ${choice.param.label.toLowerCase()}` : 'Let something turn'}
        visible={open}
        onClose={close}
      >
        <ScrollView style={styles.body}>
          {choice ? (
            <>
              {kinds.map((kind) => (
                <Item
                  key={kind}
                  label={NEW[kind].label}
                  says={NEW[kind].says}
                  onPress={() => link(newModulator(piece, kind, channel, choice.target))}
                />
              ))}
              {others.map((made) => (
                <Item
                  key={made.id}
                  label={made.name}
                  says="Turns something already; it turns this along with it."
                  onPress={() => link(made)}
                />
              ))}
            </>
          ) : (
            families.map(({ title, choices }) => (
              <View key={title}>
                <Text variant="headlineSmall">{title}</Text>
                {(ofHold ? orderHoldParams(choices, ({ param }) => param.group) : choices).map((made) => (
                  <ListItem
                    key={targetKey(made.target)}
                    title={made.param.label}
                    label={`Link ${title} ${made.param.label}`}
                    style={styles.item}
                    onPress={() => setChoice(made)}
                  />
                ))}
              </View>
            ))
          )}
        </ScrollView>
      </Sheet>
    </>
  );
}

const NEW: Record<ModulatorKind, { readonly label: string; readonly says: string }> = {
  lfo: { label: 'A new LFO', says: 'One form again and again: to and fro, on and off, falling, rising.' },
  steps: { label: 'A row of steps', says: 'One value a step, and round again.' },
  macro: {
    label: 'A macro',
    says: 'One rail of yours that turns many at once, each over its own range; it can be ridden and recorded.',
  },
  follower: { label: 'A follower', says: 'Goes by how loud a track is: opens with it, and shuts as it dies away.' },
  run: { label: 'A run', says: 'A short row of steps that begins anew whenever the hold begins.' },
  drift: { label: 'A drift', says: 'Wanders and never repeats itself, yet is the same each time you play.' },
};

function Item({
  label,
  says,
  onPress,
}: {
  readonly label: string;
  readonly says: string;
  readonly onPress: () => void;
}) {
  return (
    <ListItem title={label} note={says} label={label} variant="titleSmall" style={styles.item} onPress={onPress} />
  );
}

const styles = StyleSheet.create({
  add: { alignSelf: 'flex-start' },
  body: { maxHeight: 560 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0, paddingVertical: 8 },
});
