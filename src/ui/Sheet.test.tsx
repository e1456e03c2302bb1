import { act, fireEvent, render, screen } from '@testing-library/react';
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
const escape = (): void =>
  void act(() => {
    fireEvent.keyDown(document, { key: 'Escape' });
    fireEvent.keyUp(document, { key: 'Escape' });
  });

test('Escape closes the uppermost sheet, then the one below; commands hear the key while a sheet is open', () => {
  const open: boolean[] = [];
  const hear = (): void => void open.push(document.querySelector('[role=dialog]') !== null);
  window.addEventListener('keydown', hear);
  render(<Two />);
  expect(shown()).toEqual(['Lower', 'Upper']);
  escape();
  expect(shown()).toEqual(['Lower']);
  escape();
  expect(shown()).toEqual([]);
  window.removeEventListener('keydown', hear);
  // The key that closed the last one found it open: it let go of nothing else.
  expect(open).toEqual([true, true]);
});
