import { Button } from '../../ui/Button';
import { useWide } from '../../ui/theme';

/** How a drag over a lane draws: not at all, as the finger goes, one straight line, or steps on the grid. */
export type Drawing = 'off' | 'free' | 'line' | 'steps';

const NEXT: Readonly<Record<Drawing, Drawing>> = { off: 'free', free: 'line', line: 'steps', steps: 'off' };
const SAID: Readonly<Record<Drawing, string>> = {
  off: 'off',
  free: 'as the finger goes',
  line: 'a straight line',
  steps: 'steps on the grid',
};
const SHORT: Readonly<Record<Drawing, string | undefined>> = {
  off: undefined,
  free: 'free',
  line: 'line',
  steps: 'steps',
};

export function DrawButton({
  drawing,
  onChange,
}: {
  readonly drawing: Drawing;
  readonly onChange: (drawing: Drawing) => void;
}) {
  const wide = useWide();
  const on = drawing !== 'off';
  return (
    <Button
      label={`Draw with a finger: ${SAID[drawing]}. Change`}
      icon="edit-2"
      tone="coralInk"
      mode={on ? 'contained' : 'text'}
      onPress={() => onChange(NEXT[drawing])}
    >
      {SHORT[drawing] ?? (wide ? 'Draw' : undefined)}
    </Button>
  );
}
