import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { EXPORT_FORMATS, NORMAL_CEILING_DB, type ExportFormat, type ExportOrder } from '../../../core/files/order';
import { useView } from '../../../data/view';
import { ChipGroup } from '../../../ui/ChipGroup';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { FORMAT_NAMES } from './exportText';
import { usePiece } from '../../studio/StudioProvider';
import { RadioChips } from '../../../ui/RadioChips';

const LOUDNESS: readonly { readonly lufs: number | null; readonly text: string }[] = [
  { lufs: null, text: 'as it is' },
  { lufs: -14, text: '−14 LUFS' },
  { lufs: -16, text: '−16 LUFS' },
  { lufs: -23, text: '−23 LUFS' },
];
type What = 'mix' | 'stretch' | 'stems' | 'prints';

interface ExportFormProps {
  readonly onStart: (order: ExportOrder) => void;
}

/** What is written to files, and how. */
export function ExportForm({ onStart }: ExportFormProps) {
  const piece = usePiece();
  const range = useView((view) => view.range);
  const [wanted, setWhat] = useState<What>('mix');
  const [format, setFormat] = useState<ExportFormat>('wav24');
  const [tail, setTail] = useState<'silent' | 'none'>('silent');
  const [lufs, setLufs] = useState<number | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const offered: readonly { readonly id: What; readonly text: string; readonly there: boolean }[] = [
    { id: 'mix', text: 'the whole piece', there: true },
    { id: 'stretch', text: 'the chosen stretch', there: range !== null },
    { id: 'stems', text: 'a file for each track', there: piece.tracks.length > 0 },
    { id: 'prints', text: 'prints', there: piece.prints.length > 0 },
  ];
  const what = offered.find(({ id, there }) => id === wanted && there) ? wanted : 'mix';
  const prints = piece.prints.filter(({ id }) => !left.has(id)).map(({ id }) => id);
  const start = (): void => {
    const part = (what === 'stretch' || what === 'stems') && range ? range : { start: 0, end: piece.lengthBeats };
    onStart({
      piece: piece.id,
      what: what === 'stretch' ? 'mix' : what,
      fromBeat: part.start,
      toBeat: part.end,
      tail,
      format,
      lufs,
      prints: what === 'prints' ? prints : [],
    });
  };
  return (
    <>
      <ScrollView style={styles.body}>
        <RadioChips
          name="What is written"
          tone="sea"
          options={offered.map(({ id, text, there }) => ({
            text,
            label: `Write ${text}`,
            chosen: what === id,
            disabled: !there,
            choose: () => setWhat(id),
          }))}
        />
        {what === 'stems' ? (
          <Text variant="bodySmall">{`Each track with what it sends to returns, through the main output${range ? '; the chosen stretch of it' : ''}.`}</Text>
        ) : null}
        {what === 'prints' ? (
          <ChipGroup role="group" name="Which prints">
            {piece.prints.map(({ id, name }) => (
              <Chip
                key={id}
                role="switch"
                label={`Write ${name}`}
                chosen={!left.has(id)}
                tone="plum"
                onPress={() =>
                  setLeft(
                    (before) => new Set(before.has(id) ? [...before].filter((other) => other !== id) : [...before, id]),
                  )
                }
              >
                {name}
              </Chip>
            ))}
          </ChipGroup>
        ) : (
          <ChipGroup role="radiogroup" name="At the end">
            <Chip
              role="radio"
              label="Ring until silent"
              chosen={tail === 'silent'}
              tone="sea"
              onPress={() => setTail('silent')}
            >
              rings until silent
            </Chip>
            <Chip
              role="radio"
              label="Cut at the end"
              chosen={tail === 'none'}
              tone="sea"
              onPress={() => setTail('none')}
            >
              cut at the end
            </Chip>
          </ChipGroup>
        )}
        <RadioChips
          name="Kind of file"
          tone="sea"
          options={EXPORT_FORMATS.map((id) => ({
            text: FORMAT_NAMES[id],
            label: `As ${FORMAT_NAMES[id]}`,
            chosen: format === id,
            choose: () => setFormat(id),
          }))}
        />
        <RadioChips
          name="Loudness"
          tone="sea"
          options={LOUDNESS.map((one) => ({
            text: one.text,
            label: `Loudness ${one.text}`,
            chosen: lufs === one.lufs,
            choose: () => setLufs(one.lufs),
          }))}
        />
        {lufs === null ? null : (
          <Text variant="bodySmall">
            {`Brought there by its level alone, and no true peak above ${NORMAL_CEILING_DB} dB: what its peaks do not allow is left.`.replace(
              '-',
              '\u2212',
            )}
          </Text>
        )}
        <Text variant="bodySmall">
          WAV files carry the sections as markers, their place in the piece, and the loop of a bed. The server writes;
          you can go on, or close this window.
        </Text>
      </ScrollView>
      <Button
        label="Start writing"
        tone="sea"
        mode="contained"
        disabled={what === 'prints' && prints.length === 0}
        style={styles.go}
        onPress={start}
      >
        Write
      </Button>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  go: { marginTop: 14, alignSelf: 'flex-start' },
});
