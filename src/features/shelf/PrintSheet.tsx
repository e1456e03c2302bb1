import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { chainOf } from '../../core/piece/find';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { print } from '../studio/printing';
import { usePiece, useStudio } from '../studio/StudioProvider';

interface PrintSheetProps {
  readonly visible: boolean;
  readonly onClose: () => void;
  readonly channel: string;
  readonly clip: string | null;
  readonly range: { readonly start: number; readonly end: number } | null;
}

const TAILS: readonly { readonly bars: number | null; readonly label: string }[] = [
  { bars: null, label: 'until silent' },
  { bars: 0, label: 'cut at the end' },
  { bars: 1, label: '1 bar' },
  { bars: 2, label: '2 bars' },
  { bars: 4, label: '4 bars' },
];

/** What a print takes and how long it rings; then it runs in the background while playing goes on. */
export function PrintSheet({ visible, onClose, channel, clip, range }: PrintSheetProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [part, setPart] = useState<'mix' | 'wet'>('wet');
  const [tailBars, setTailBars] = useState<number | null>(null);
  const effects = chainOf(piece, channel).filter((slot) => slot.on).length;
  const taken = effects === 0 ? 'mix' : part;
  const start = (): void => {
    const order = clip
      ? studio.clipPrint(clip, taken, tailBars)
      : range && { channel, clip: null, fromBeat: range.start, toBeat: range.end, part: taken, tailBars };
    if (order) void print(studio, order);
    onClose();
  };
  return (
    <Sheet title={clip ? 'Print this clip' : 'Print this stretch'} visible={visible} onClose={onClose}>
      <Words kind="small">Only this goes in, through the effects of its track; no neighbour does. Nothing in the piece changes.</Words>
      <Words style={styles.label}>What is kept</Words>
      <View role="radiogroup" aria-label="What is kept" style={styles.row}>
        <Tap role="radio" label="Wet only" text="wet only" tone="sea" chosen={taken === 'wet'} disabled={effects === 0} onPress={() => setPart('wet')} />
        <Tap role="radio" label="Wet and dry" text="wet and dry" tone="sea" chosen={taken === 'mix'} onPress={() => setPart('mix')} />
      </View>
      {effects === 0 ? <Words kind="small">This track has no effect that is on: the print will be the plain sound.</Words> : null}
      <Words style={styles.label}>How long it rings</Words>
      <View role="radiogroup" aria-label="How long it rings" style={styles.row}>
        {TAILS.map((tail) => (
          <Tap key={tail.label} role="radio" label={`Rings: ${tail.label}`} text={tail.label} tone="sea" chosen={tailBars === tail.bars} onPress={() => setTailBars(tail.bars)} />
        ))}
      </View>
      <Tap filled tone="plum" label="Start the print" text="Print" onPress={start} style={styles.go} />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  label: { marginTop: 14, marginBottom: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  go: { marginTop: 18 },
});
