import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { EXPORT_FORMATS, NORMAL_CEILING_DB, type ExportFormat, type ExportOrder } from '../../core/files/order';
import { useSession } from '../../data/session';
import { ChipGroup } from '../../ui/ChipGroup';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { Words } from '../../ui/Words';
import { usePiece } from '../studio/StudioProvider';

export const FORMAT_NAMES: Readonly<Record<ExportFormat, string>> = {
  wav16: '16-bit WAV, dithered',
  wav24: '24-bit WAV',
  wav32f: '32-bit float WAV',
  flac16: '16-bit FLAC',
  flac24: '24-bit FLAC',
};
const LOUDNESS: readonly { readonly lufs: number | null; readonly text: string }[] = [
  { lufs: null, text: 'as it is' },
  { lufs: -14, text: '−14 LUFS' },
  { lufs: -16, text: '−16 LUFS' },
  { lufs: -23, text: '−23 LUFS' },
];
type What = 'mix' | 'stretch' | 'stems' | 'prints';

interface ExportSheetProps {
  readonly visible: boolean;
  readonly onClose: () => void;
  readonly onStart: (order: ExportOrder) => void;
}

/** What is written to files, and how. */
export function ExportSheet({ visible, onClose, onStart }: ExportSheetProps) {
  const piece = usePiece();
  const range = useSession((state) => state.range);
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
    onClose();
  };
  return (
    <Sheet title="Write files" visible={visible} onClose={onClose}>
      <ScrollView style={styles.body}>
        <ChipGroup role="radiogroup" name="What is written">
          {offered.map(({ id, text, there }) => (
            <Tap
              key={id}
              role="radio"
              label={`Write ${text}`}
              text={text}
              tone="sea"
              chosen={what === id}
              disabled={!there}
              onPress={() => setWhat(id)}
            />
          ))}
        </ChipGroup>
        {what === 'stems' ? (
          <Words kind="small">{`Each track with what it sends to returns, through the main output${range ? '; the chosen stretch of it' : ''}.`}</Words>
        ) : null}
        {what === 'prints' ? (
          <ChipGroup role="group" name="Which prints">
            {piece.prints.map(({ id, name }) => (
              <Tap
                key={id}
                role="switch"
                label={`Write ${name}`}
                text={name}
                tone="plum"
                chosen={!left.has(id)}
                onPress={() =>
                  setLeft(
                    (before) => new Set(before.has(id) ? [...before].filter((other) => other !== id) : [...before, id]),
                  )
                }
              />
            ))}
          </ChipGroup>
        ) : (
          <ChipGroup role="radiogroup" name="At the end">
            <Tap
              role="radio"
              label="Ring until silent"
              text="rings until silent"
              tone="sea"
              chosen={tail === 'silent'}
              onPress={() => setTail('silent')}
            />
            <Tap
              role="radio"
              label="Cut at the end"
              text="cut at the end"
              tone="sea"
              chosen={tail === 'none'}
              onPress={() => setTail('none')}
            />
          </ChipGroup>
        )}
        <ChipGroup role="radiogroup" name="Kind of file">
          {EXPORT_FORMATS.map((id) => (
            <Tap
              key={id}
              role="radio"
              label={`As ${FORMAT_NAMES[id]}`}
              text={FORMAT_NAMES[id]}
              tone="sea"
              chosen={format === id}
              onPress={() => setFormat(id)}
            />
          ))}
        </ChipGroup>
        <ChipGroup role="radiogroup" name="Loudness">
          {LOUDNESS.map((one) => (
            <Tap
              key={one.text}
              role="radio"
              label={`Loudness ${one.text}`}
              text={one.text}
              tone="sea"
              chosen={lufs === one.lufs}
              onPress={() => setLufs(one.lufs)}
            />
          ))}
        </ChipGroup>
        {lufs === null ? null : (
          <Words kind="small">
            {`Brought there by its level alone, and no true peak above ${NORMAL_CEILING_DB} dB: what its peaks do not allow is left.`.replace(
              '-',
              '\u2212',
            )}
          </Words>
        )}
        <Words kind="small">
          WAV files carry the sections as markers, their place in the piece, and the loop of a bed. The server writes;
          you can go on, or close this window.
        </Words>
      </ScrollView>
      <Tap
        filled
        tone="sea"
        label="Start writing"
        text="Write"
        disabled={what === 'prints' && prints.length === 0}
        onPress={start}
        style={styles.go}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  go: { marginTop: 14, alignSelf: 'flex-start' },
});
