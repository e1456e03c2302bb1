import { Button } from '../../../ui/Button';

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
    <Button label={`${verb} ${name}`} icon={sounding ? 'square' : 'play'} disabled={disabled} onPress={onPress}>
      {verb}
    </Button>
  );
}
