import { Tap } from '../../ui/Tap';

interface HearRecipeProps {
  readonly name: string;
  readonly sounding: boolean;
  readonly disabled: boolean;
  readonly onPress: () => void;
}

/** Lets a recipe be heard before it is made, and stops it. */
export function HearRecipe({ name, sounding, disabled, onPress }: HearRecipeProps) {
  const verb = sounding ? 'Stop' : 'Hear';
  return (
    <Tap
      icon={sounding ? 'square' : 'play'}
      text={verb}
      label={`${verb} ${name}`}
      disabled={disabled}
      onPress={onPress}
    />
  );
}
