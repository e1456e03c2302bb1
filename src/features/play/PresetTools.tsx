import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import * as z from 'zod';
import { effectOf, findEffect } from '../../core/effects/catalogue';
import { fittingValues } from '../../core/piece/edits/chain';
import { nameSchema } from '../../core/piece/fields';
import type { Slot } from '../../core/piece/piece';
import { readStored, writeStored } from '../../data/browserStorage';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { useKeepPreset } from '../shared/blocks/ownPresets';
import type { useHoldPresets } from './presets';

interface PresetToolsProps {
  readonly slot: Slot;
  readonly presets: ReturnType<typeof useHoldPresets>;
}

const COPIED = 'zephiro.copiedFigures';
const copiedSchema = z.strictObject({
  name: nameSchema,
  effect: z.string(),
  values: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});

/** Keeps a hold's figures under a name, for every piece, and takes them from one hold to another. */
export function PresetTools({ slot, presets: { now, take } }: PresetToolsProps) {
  const [naming, setNaming] = useState(false);
  const { name } = effectOf(slot.effect);
  const { keep, remove } = useKeepPreset(slot);
  const paste = (): void => {
    const copied = readStored(COPIED, copiedSchema.nullable(), null);
    const values = copied && findEffect(copied.effect) ? fittingValues(copied, slot.effect) : {};
    if (copied && Object.keys(values).length > 0)
      take({ id: 'copied', name: copied.name, purpose: '', values: { ...slot.values, ...values }, own: true });
    else useOpenPiece.getState().say('Nothing was copied that fits here. Copy the figures of a hold first.');
  };
  const copy = (): void => {
    writeStored(COPIED, { name: now?.name ?? name, effect: slot.effect, values: slot.values });
    useOpenPiece.getState().say(`Figures of ${name} copied: paste them into another hold, here or in another piece.`);
  };
  return (
    <View style={styles.row}>
      <Button mode="text" label="Keep as a preset of your own" onPress={() => setNaming(true)}>
        Keep
      </Button>
      <Button mode="text" label={`Copy the figures of ${name}`} onPress={copy}>
        Copy
      </Button>
      <Button mode="text" label="Paste the copied figures" onPress={paste}>
        Paste
      </Button>
      {now?.own && now.id !== 'copied' ? (
        <Button mode="text" tone="danger" label={`Remove preset ${now.name}`} onPress={() => remove.mutate(now.id)}>
          Remove
        </Button>
      ) : null}
      <Sheet title="A preset of your own" visible={naming} onClose={() => setNaming(false)}>
        <NameField
          label="Name of the preset"
          initial={now ? `${now.name}, mine` : name}
          action="Keep"
          actionLabel="Keep the preset"
          onName={(called) => {
            keep.mutate(called);
            setNaming(false);
          }}
        />
      </Sheet>
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 2 } });
