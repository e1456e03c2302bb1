import { keepPreferences, usePreferences } from '../../data/preferences';
import { Chip } from '../../ui/Chip';
import { ChipGroup } from '../../ui/ChipGroup';
import { Text } from '../../ui/Text';
import { RadioChips } from '../../ui/RadioChips';

const COUNTS = [
  [0, 'none'],
  [1, '1 bar'],
  [2, '2 bars'],
] as const;

/** The click, and how many bars are counted in: for whoever plays along, and never part of what is recorded or written. */
export function ClickChoice() {
  const click = usePreferences((preferences) => preferences.click);
  const countInBars = usePreferences((preferences) => preferences.countInBars);
  return (
    <>
      <ChipGroup role="group" name="Click">
        <Chip role="switch" label="Click" chosen={click} tone="sea" onPress={() => keepPreferences({ click: !click })}>
          {click ? 'clicks on every beat' : 'no click'}
        </Chip>
      </ChipGroup>
      <RadioChips
        name="Count-in"
        tone="sea"
        options={COUNTS.map(([bars, text]) => ({
          text: text,
          label: `Count-in: ${text}`,
          chosen: countInBars === bars,
          choose: () => keepPreferences({ countInBars: bars }),
        }))}
      />
      <Text variant="bodySmall">Only heard: nothing of it is recorded, printed or written to a file.</Text>
    </>
  );
}
