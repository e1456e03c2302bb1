import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
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
