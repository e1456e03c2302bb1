import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { echoParams } from '../core/effects/echo/params';
import { RailValue } from './RailValue';
import { SearchField } from './SearchField';
import { Sheet } from './Sheet';

jest.mock('@expo/vector-icons/Feather', () => () => null);

/** A sheet with another one over it. */
function Two() {
  const [open, setOpen] = useState({ lower: true, upper: true });
  return (
    <>
      <Sheet title="Lower" visible={open.lower} onClose={() => setOpen((now) => ({ ...now, lower: false }))}>
        {null}
      </Sheet>
      <Sheet title="Upper" visible={open.upper} onClose={() => setOpen((now) => ({ ...now, upper: false }))}>
        {null}
      </Sheet>
    </>
  );
}

const shown = (): (string | null)[] =>
  ['Lower', 'Upper'].filter((name) => screen.queryByRole('heading', { name }) !== null);
/** @returns whether commands were left the key */
function escape(): boolean {
  const left = fireEvent.keyDown(document, { key: 'Escape' });
  fireEvent.keyUp(document, { key: 'Escape' });
  return left;
}

test('Escape closes the uppermost sheet, then the one below, and is a command’s only where none is open', () => {
  render(<Two />);
  expect(shown()).toEqual(['Lower', 'Upper']);
  expect(escape()).toBe(false);
  expect(shown()).toEqual(['Lower']);
  expect(escape()).toBe(false);
  expect(shown()).toEqual([]);
  expect(escape()).toBe(true);
});

test('Escape in a figure that is being typed leaves the figure alone, and the sheet open', () => {
  const close = jest.fn();
  const context = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: 48_000 };
  render(
    <Sheet title="Figures" visible onClose={close}>
      <RailValue param={echoParams.feedback} value={0.5} context={context} onSet={jest.fn()} />
    </Sheet>,
  );
  fireEvent.click(screen.getByRole('button', { name: /^Feedback/ }));
  fireEvent.keyDown(screen.getByRole('textbox'), { key: 'Escape' });
  fireEvent.keyUp(document, { key: 'Escape' });
  expect(screen.queryByRole('textbox')).toBeNull();
  expect(close).not.toHaveBeenCalled();
  fireEvent.keyDown(document, { key: 'Escape' });
  expect(close).toHaveBeenCalledTimes(1);
});

test('Escape in a field of a sheet closes it', () => {
  const close = jest.fn();
  render(
    <Sheet title="Search" visible onClose={close}>
      <SearchField label="Search" placeholder="" words="" onWords={jest.fn()} />
    </Sheet>,
  );
  fireEvent.keyDown(screen.getByRole('searchbox'), { key: 'Escape' });
  expect(close).toHaveBeenCalledTimes(1);
});
