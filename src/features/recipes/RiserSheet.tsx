import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { choice, frequency, gain } from '../../core/params/make';
import { contextOf } from '../../core/piece/find';
import type { RiserSettings } from '../../core/recipes/riser';
import { useOpenPiece } from '../../data/openPiece';
import { ChoiceRail, Rail } from '../../ui/Rail';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';
import { HearRecipe } from './HearRecipe';
import { useMaking } from './useMaking';
import { hearRiser, makeRiser } from './risers';

const LEVEL = gain({ label: 'Level', group: 'Riser', hint: 'At its full end.', initial: 0.6 });
const LOW = frequency({ label: 'From', group: 'Riser', hint: 'Where the filter stands at the quiet end.', min: 60, max: 4000, initial: 250 });
const HIGH = frequency({ label: 'To', group: 'Riser', hint: 'Where it stands at the full end.', min: 500, max: 20_000, initial: 12_000 });
const WAY = choice({ label: 'Way', group: 'Riser', hint: '', initial: 'rise', options: [{ id: 'rise', label: 'rises into its end' }, { id: 'fall', label: 'falls from its beginning' }] });
const SOURCE = choice({ label: 'Made of', group: 'Riser', hint: '', initial: 'noise', options: [{ id: 'noise', label: 'noise' }, { id: 'tone', label: 'a tone' }] });
const newRoll = (): number => Math.floor(Math.random() * 0xffffffff);

interface RiserSheetProps {
  readonly range: { readonly start: number; readonly end: number };
  /** Where the stretch lies, as bars and beats. */
  readonly where: string;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** A riser into the end of the chosen stretch, or a fall from its beginning: clip, filter and moves on a track of its own. */
export function RiserSheet({ range, where, visible, onClose }: RiserSheetProps) {
  return (
    <Sheet title={`Riser, ${where}`} visible={visible} onClose={onClose}>
      {visible ? <Maker range={range} onDone={onClose} /> : null}
    </Sheet>
  );
}

function Maker({ range, onDone }: { readonly range: RiserSheetProps['range']; readonly onDone: () => void }) {
  const piece = usePiece();
  const context = contextOf(piece);
  const [settings, setSettings] = useState<RiserSettings>(() => ({ way: 'rise', source: 'noise', lowHz: 250, highHz: 12_000, level: 0.6, gate: false, space: false, roll: newRoll() }));
  const { busy, trouble, doing, sounding, hear } = useMaking();
  const change = (part: Partial<RiserSettings>): void => setSettings((before) => ({ ...before, ...part }));
  const make = (): Promise<void> => doing(async () => {
    const name = await makeRiser(piece, range, settings);
    useOpenPiece.getState().say(`${name} is on a track of its own: its filter and its moves can be changed there.`);
    onDone();
  });
  const tryIt = (): Promise<void> => hear(() => hearRiser(piece, range, settings), piece.sampleRate);
  const number = (param: typeof LEVEL, value: number, set: (value: number) => void) => <Rail param={param} value={value} context={context} look="plain" onTouch={() => undefined} onSet={(next) => typeof next === 'number' && set(next)} />;
  return (
    <ScrollView style={styles.body}>
      <ChoiceRail param={WAY} value={settings.way} onSet={(way) => change({ way: way === 'fall' ? 'fall' : 'rise' })} />
      <ChoiceRail param={SOURCE} value={settings.source} onSet={(source) => change({ source: source === 'tone' ? 'tone' : 'noise' })} />
      {number(LOW, settings.lowHz, (lowHz) => change({ lowHz }))}
      {number(HIGH, settings.highHz, (highHz) => change({ highHz }))}
      {number(LEVEL, settings.level, (level) => change({ level }))}
      <View style={styles.chips}>
        <Tap role="switch" chosen={settings.gate} tone="coralInk" label="Gate that quickens" text="gate that quickens" onPress={() => change({ gate: !settings.gate })} />
        <Tap role="switch" chosen={settings.space} tone="sea" label="Space that grows" text="space that grows" onPress={() => change({ space: !settings.space })} />
        {settings.source === 'noise' ? <Tap icon="shuffle" label="Another noise" onPress={() => change({ roll: newRoll() })} /> : null}
      </View>
      {trouble ? <Words kind="small" tone="danger" role="alert">{trouble}</Words> : null}
      <View style={styles.chips}>
        <HearRecipe name="the riser" sounding={sounding} disabled={busy} onPress={() => void tryIt()} />
        <Tap filled tone="plum" label={settings.way === 'rise' ? 'Make the riser' : 'Make the fall'} text={settings.way === 'rise' ? 'Make the riser' : 'Make the fall'} disabled={busy} onPress={() => void make()} />
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingVertical: 8 },
});
