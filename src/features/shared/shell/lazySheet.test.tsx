import { act, render, screen } from '@testing-library/react';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { lazySheet } from './lazySheet';

interface SheetProps {
  readonly name: string;
  readonly onClose?: () => void;
}

const Told = ({ name }: SheetProps) => <p>{`Sheet ${name}`}</p>;

test('a sheet is fetched when it is shown first, and once', async () => {
  const load = jest.fn(async () => Told);
  const Lazy = lazySheet<SheetProps>(load);
  expect(load).not.toHaveBeenCalled();
  const { rerender } = await act(async () => render(<Lazy name="a" />));
  expect(screen.getByText('Sheet a')).toBeTruthy();
  rerender(<Lazy name="b" />);
  expect(screen.getByText('Sheet b')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(1);
});

test('one that is not visible yet is not fetched; once it was, it stays', async () => {
  const load = jest.fn(async () => Told);
  const Lazy = lazySheet<SheetProps & { readonly visible?: boolean }>(load);
  const { rerender } = render(<Lazy name="a" visible={false} />);
  expect(load).not.toHaveBeenCalled();
  await act(async () => rerender(<Lazy name="a" visible />));
  expect(screen.getByText('Sheet a')).toBeTruthy();
  rerender(<Lazy name="a" visible={false} />);
  expect(screen.getByText('Sheet a')).toBeTruthy();
});

test('one that cannot be fetched says so and is closed', async () => {
  useView.setState({ sheet: 'settings' });
  const Lazy = lazySheet<SheetProps>(async () => {
    throw new TypeError('Failed to fetch');
  });
  const close = jest.fn();
  await act(async () => render(<Lazy name="a" onClose={close} />));
  expect(close).toHaveBeenCalled();
  expect(useView.getState().sheet).toBeNull();
  expect(useOpenPiece.getState().notice).toMatch(/could not be fetched/);
});
