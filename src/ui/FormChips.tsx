import { useController, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import { Chip } from './Chip';
import { ChipGroup } from './ChipGroup';
import type { Tone } from './tokens';

interface FormFieldProps<Values extends FieldValues> {
  readonly control: Control<Values>;
  readonly field: FieldPath<Values>;
  /** Heading, and the name of the group. */
  readonly name: string;
  readonly tone?: Tone;
}

interface RadioFieldProps<Values extends FieldValues, Value> extends FormFieldProps<Values> {
  readonly options: readonly {
    readonly value: Value;
    readonly text: string;
    /** What is spoken where the text alone does not say it. */
    readonly label?: string;
    readonly disabled?: boolean;
  }[];
  /** What is shown as chosen where it is not the field's own value. */
  readonly shown?: Value;
}

/** A field of a form of which one value is chosen, as chips. */
export function RadioField<Values extends FieldValues, Value extends string | number | null>({
  control,
  field,
  name,
  tone,
  options,
  shown,
}: RadioFieldProps<Values, Value>) {
  const { field: state } = useController({ control, name: field });
  const chosen: unknown = shown === undefined ? state.value : shown;
  return (
    <ChipGroup role="radiogroup" name={name}>
      {options.map(({ value, text, label, disabled }) => (
        <Chip
          key={text}
          role="radio"
          label={label}
          chosen={chosen === value}
          disabled={disabled}
          tone={tone}
          onPress={() => state.onChange(value)}
        >
          {text}
        </Chip>
      ))}
    </ChipGroup>
  );
}

interface OmittingFieldProps<Values extends FieldValues> extends FormFieldProps<Values> {
  readonly options: readonly { readonly id: string; readonly text: string; readonly label: string }[];
}

/** A field that lists the ids of what is left out: everything is taken until it is switched off. */
export function OmittingField<Values extends FieldValues>({
  control,
  field,
  name,
  tone,
  options,
}: OmittingFieldProps<Values>) {
  const { field: state } = useController({ control, name: field });
  const omitted = state.value as readonly string[];
  const toggle = (id: string): void =>
    state.onChange(omitted.includes(id) ? omitted.filter((other) => other !== id) : [...omitted, id]);
  return (
    <ChipGroup role="group" name={name}>
      {options.map(({ id, text, label }) => (
        <Chip
          key={id}
          role="switch"
          label={label}
          chosen={!omitted.includes(id)}
          tone={tone}
          onPress={() => toggle(id)}
        >
          {text}
        </Chip>
      ))}
    </ChipGroup>
  );
}
