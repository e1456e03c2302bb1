import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useWatch } from 'react-hook-form';
import { ScrollView, StyleSheet } from 'react-native';
import { EXPORT_FORMATS, NORMAL_CEILING_DB, type ExportOrder } from '../../../core/files/order';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { OmittingField, RadioField } from '../../../ui/FormChips';
import { Text } from '../../../ui/Text';
import { usePiece } from '../../studio/StudioProvider';
import { canWrite, EXPORT_DEFAULTS, exportFormSchema, exportOrderOf } from './exportOrder';
import { FORMAT_NAMES } from './exportText';

const WHAT = [
  { value: 'mix', text: 'the whole piece' },
  { value: 'stretch', text: 'the chosen stretch' },
  { value: 'stems', text: 'a file for each track' },
  { value: 'prints', text: 'prints' },
] as const;
const ENDS = [
  { value: 'silent', text: 'rings until silent', label: 'Ring until silent' },
  { value: 'none', text: 'cut at the end', label: 'Cut at the end' },
] as const;
const FORMATS = EXPORT_FORMATS.map((value) => ({
  value,
  text: FORMAT_NAMES[value],
  label: `As ${FORMAT_NAMES[value]}`,
}));
const LOUDNESS = [
  { value: null, text: 'as it is' },
  { value: -14, text: '−14 LUFS' },
  { value: -16, text: '−16 LUFS' },
  { value: -23, text: '−23 LUFS' },
].map((one) => ({ ...one, label: `Loudness ${one.text}` }));

interface ExportFormProps {
  readonly onStart: (order: ExportOrder) => void;
}

/** What is written to files, and how. */
export function ExportForm({ onStart }: ExportFormProps) {
  const piece = usePiece();
  const range = useView((view) => view.range);
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(exportFormSchema),
    defaultValues: EXPORT_DEFAULTS,
  });
  const values = { ...EXPORT_DEFAULTS, ...useWatch({ control }) };
  const what = canWrite(values.what, piece, range) ? values.what : 'mix';
  const start = handleSubmit((chosen) => {
    const order = exportOrderOf(piece, range, chosen);
    if (order) onStart(order);
  });
  return (
    <>
      <ScrollView style={styles.body}>
        <RadioField
          control={control}
          field="what"
          name="What is written"
          tone="sea"
          shown={what}
          options={WHAT.map((one) => ({
            ...one,
            label: `Write ${one.text}`,
            disabled: !canWrite(one.value, piece, range),
          }))}
        />
        {what === 'stems' ? (
          <Text
            variant="bodySmall"
            style={styles.note}
          >{`Each track with what it sends to returns, through the main output${range ? '; the chosen stretch of it' : ''}.`}</Text>
        ) : null}
        {what === 'prints' ? (
          <OmittingField
            control={control}
            field="omitted"
            name="Which prints"
            tone="plum"
            options={piece.prints.map(({ id, name }) => ({ id, text: name, label: `Write ${name}` }))}
          />
        ) : (
          <RadioField control={control} field="tail" name="At the end" tone="sea" options={ENDS} />
        )}
        <RadioField control={control} field="format" name="Kind of file" tone="sea" options={FORMATS} />
        <RadioField control={control} field="lufs" name="Loudness" tone="sea" options={LOUDNESS} />
        {values.lufs === null ? null : (
          <Text variant="bodySmall" style={styles.note}>
            {`Brought there by its level alone, and no true peak above ${NORMAL_CEILING_DB} dB: what its peaks do not allow is left.`.replace(
              '-',
              '\u2212',
            )}
          </Text>
        )}
        <Text variant="bodySmall" style={styles.note}>
          WAV files carry the sections as markers, their place in the piece, and the loop of a bed. The server writes;
          you can go on, or close this window.
        </Text>
      </ScrollView>
      <Button
        label="Start writing"
        tone="sea"
        mode="contained"
        disabled={exportOrderOf(piece, range, values) === null}
        style={styles.go}
        onPress={() => void start()}
      >
        Write
      </Button>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 600, flexShrink: 1 },
  note: { marginTop: 8 },
  go: { marginTop: 14, alignSelf: 'flex-start' },
});
