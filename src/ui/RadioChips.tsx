import { Chip } from './Chip';
import { ChipGroup } from './ChipGroup';
import type { Tone } from './tokens';

/** One of the choices; its text is unlike that of the others. */
export interface RadioChip {
  readonly text: string;
  /** What is spoken where the text alone does not say it. */
  readonly label?: string;
  readonly chosen: boolean;
  readonly disabled?: boolean;
  readonly choose: () => void;
}

interface RadioChipsProps {
  readonly name: string;
  readonly tone?: Tone;
  readonly options: readonly RadioChip[];
}

/** Choices of which one holds, as chips under their name. */
export function RadioChips({ name, tone, options }: RadioChipsProps) {
  return (
    <ChipGroup role="radiogroup" name={name}>
      {options.map(({ text, label, chosen, disabled, choose }) => (
        <Chip key={text} role="radio" label={label} chosen={chosen} disabled={disabled} tone={tone} onPress={choose}>
          {text}
        </Chip>
      ))}
    </ChipGroup>
  );
}
