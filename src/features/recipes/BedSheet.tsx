import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { choice, frequency, gain } from '../../core/params/make';
import type { NumberParam } from '../../core/params/param';
import { contextOf } from '../../core/piece/find';
import type { Track } from '../../core/piece/piece';
import { BED_SPACES, type BedSettings } from '../../core/recipes/bed';
import { useOpenPiece } from '../../data/openPiece';
import { ChoiceRail, Rail } from '../../ui/Rail';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { hearBed, makeBed } from './beds';
import { HearRecipe } from './HearRecipe';
import { useMaking } from './useMaking';

const LEVEL = gain({ label: 'Level', group: 'Bed', hint: 'How loud it lies under what comes.', initial: 0.5 });
const DARK = frequency({ label: 'High cut', group: 'Bed', hint: 'Darker beds lie further back.', min: 800, max: 20_000, initial: 6000 });
const SPACE = choice({ label: 'Space', group: 'Bed', hint: '', initial: 'hall', options: BED_SPACES.map((id) => ({ id, label: id })) });
const FREEZE = choice({ label: 'Frozen', group: 'Bed', hint: '', initial: 'sealed', options: [{ id: 'sealed', label: 'sealed' }, { id: 'open', label: 'still taking in' }] });

interface BedSheetProps {
  readonly track: Track;
  readonly range: { readonly start: number; readonly end: number };
  /** Where the stretch lies, as bars and beats. */
  readonly where: string;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** A frozen bed over the chosen stretch, of what the channel played before it. */
export function BedSheet({ track, range, where, visible, onClose }: BedSheetProps) {
  return (
    <Sheet title={`Bed of ${track.name}, ${where}`} visible={visible} onClose={onClose}>
      {visible ? <Maker track={track} range={range} onDone={onClose} /> : null}
    </Sheet>
  );
}

const NOTHING = 'This track plays nothing before the stretch, so there is nothing to freeze. Take more beats, or begin the stretch where a phrase ends.';

function Maker({ track, range, onDone }: { readonly track: Track; readonly range: BedSheetProps['range']; readonly onDone: () => void }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const context = contextOf(piece);
  const [settings, setSettings] = useState<BedSettings>({ takeBeats: 4, space: 'hall', highCutHz: 6000, freeze: 'sealed', fadeInBeats: 1, level: 0.5 });
  const { busy, trouble, refuse, doing, sounding, hear } = useMaking();
  const change = (part: Partial<BedSettings>): void => setSettings((before) => ({ ...before, ...part }));
  const make = (): Promise<void> => doing(async () => {
    const name = await makeBed(studio, piece, track, range, settings);
    if (name === null) refuse(NOTHING);
    else {
      useOpenPiece.getState().say(`${name} lies over the stretch, on a track of its own.`);
      onDone();
    }
  });
  const tryIt = (): Promise<void> => hear(() => hearBed(studio, piece, track, range, settings), piece.sampleRate, NOTHING);
  const beats = (name: string, what: 'takeBeats' | 'fadeInBeats', choices: readonly number[]) => (
    <View role="radiogroup" aria-label={name} style={styles.chips}>
      <Words style={styles.name}>{name}</Words>
      {choices.map((count) => <Tap key={count} role="radio" chosen={settings[what] === count} filled={settings[what] === count} tone="plum" label={`${name} ${count} ${count === 1 ? 'beat' : 'beats'}`} text={`${count}`} onPress={() => change({ [what]: count })} />)}
    </View>
  );
  const number = (param: NumberParam, value: number, set: (value: number) => void) => <Rail param={param} value={value} context={context} look="plain" onTouch={() => undefined} onSet={(next) => typeof next === 'number' && set(next)} />;
  return (
    <ScrollView style={styles.body}>
      <Words kind="small">What the track plays before the stretch rings in a space, is held there, and fills the stretch.</Words>
      {beats('Beats taken', 'takeBeats', [1, 2, 4, 8])}
      {beats('Beats to come in', 'fadeInBeats', [0, 1, 4])}
      <ChoiceRail param={SPACE} value={settings.space} onSet={(space) => change({ space: BED_SPACES.find((id) => id === space) ?? 'hall' })} />
      <ChoiceRail param={FREEZE} value={settings.freeze} onSet={(freeze) => change({ freeze: freeze === 'open' ? 'open' : 'sealed' })} />
      {number(DARK, settings.highCutHz, (highCutHz) => change({ highCutHz }))}
      {number(LEVEL, settings.level, (level) => change({ level }))}
      {trouble ? <Words kind="small" tone="danger" role="alert">{trouble}</Words> : null}
      <View style={styles.chips}>
        <HearRecipe name="the bed" sounding={sounding} disabled={busy} onPress={() => void tryIt()} />
        <Tap filled tone="plum" label="Make the bed" text={busy ? 'Freezing …' : 'Make the bed'} disabled={busy} onPress={() => void make()} />
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6, paddingVertical: 6 },
  name: { minWidth: 124 },
});
