import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import * as z from 'zod';
import { nameSchema } from '../core/piece/fields';
import { Button } from './Button';
import { TextField } from './TextField';

const formSchema = z.object({ name: nameSchema });

interface NameFieldProps {
  /** Accessible name of the field. */
  readonly label: string;
  readonly initial: string;
  readonly placeholder?: string;
  readonly action?: string;
  /** Spoken for the button. */
  readonly actionLabel?: string;
  readonly onName: (name: string) => void;
}

/** A name to be typed, and kept by Enter or by the button; an empty one is not taken. */
export function NameField({
  label,
  initial,
  placeholder,
  action = 'Rename',
  actionLabel = action,
  onName,
}: NameFieldProps) {
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(formSchema),
    defaultValues: { name: initial },
  });
  const typed = useWatch({ control, name: 'name' });
  const submit = handleSubmit(({ name }) => onName(name));
  return (
    <View style={styles.row}>
      <Controller
        control={control}
        name="name"
        render={({ field, fieldState }) => (
          <TextField
            label={label}
            value={field.value}
            placeholder={placeholder}
            maxLength={120}
            problem={fieldState.error ? 'A name has 1 to 120 characters.' : undefined}
            onChangeText={field.onChange}
            onBlur={field.onBlur}
            onSubmitEditing={() => void submit()}
          />
        )}
      />
      <Button label={actionLabel} disabled={typed.trim() === ''} onPress={() => void submit()}>
        {action}
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 8, alignItems: 'flex-start', marginBottom: 8 },
});
