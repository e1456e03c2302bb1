import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { HelperText } from 'react-native-paper';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { TextField } from '../../ui/TextField';
import type { Tone } from '../../ui/tokens';
import { BPM_REFUSED, bpmFormSchema } from './bpm';

interface BpmFormProps {
  /** Spoken for the field. */
  readonly label: string;
  readonly initial: string;
  readonly placeholder?: string;
  readonly action: string;
  /** Spoken for the button. */
  readonly actionLabel: string;
  readonly tone?: Tone;
  readonly onBpm: (bpm: number) => void;
}

/** A tempo that is typed and taken by Enter or by the button; one out of range stays in the field with the reason. */
export function BpmForm({ label, initial, placeholder, action, actionLabel, tone = 'ink', onBpm }: BpmFormProps) {
  const { control, handleSubmit, formState } = useForm({
    resolver: zodResolver(bpmFormSchema),
    // What is tapped beside the form shows in the field.
    values: { bpm: initial },
  });
  const submit = handleSubmit(({ bpm }) => onBpm(bpm));
  const refused = formState.errors.bpm !== undefined;
  return (
    <View>
      <View style={styles.row}>
        <Controller
          control={control}
          name="bpm"
          render={({ field }) => (
            <TextField
              label={label}
              value={field.value}
              placeholder={placeholder}
              inputMode="decimal"
              selectTextOnFocus
              invalid={refused}
              onChangeText={field.onChange}
              onBlur={field.onBlur}
              onSubmitEditing={() => void submit()}
              style={styles.field}
            />
          )}
        />
        <Text>BPM</Text>
        <Button label={actionLabel} tone={tone} mode="contained" style={styles.set} onPress={() => void submit()}>
          {action}
        </Button>
      </View>
      {refused ? (
        <HelperText type="error" role="alert" padding="none">
          {BPM_REFUSED}
        </HelperText>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  field: { flexGrow: 0, flexBasis: 120 },
  set: { marginLeft: 'auto', minWidth: 88 },
});
