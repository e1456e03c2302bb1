import { execFileSync } from 'node:child_process';
import { writeMovesMidi } from '../src/core/exchange/movesMidi';
import type { Point } from '../src/core/automation/point';
import { emptyPiece, type Lane, type Piece } from '../src/core/piece/piece';

const piece: Piece = {
  ...emptyPiece('p', 'Pier'),
  returns: [{ id: 'r', name: 'Space: wide', gain: 1, pan: 0, mute: false, solo: false, chain: [], sends: [] }],
};

/** Rows of a MIDI file as a reader of another make has them: `apt-get install midicsv`, which scripts/test does. */
const rowsOf = (bytes: Uint8Array): string[][] =>
  execFileSync('midicsv', { input: bytes, encoding: 'latin1' })
    .trim()
    .split('\n')
    .map((line) => line.split(', '));

test('another reader of MIDI files finds the tempo and its changes, the names, and every value at its time', () => {
  const point = (beat: number, value: number, shape: Point['shape'] = 'hold'): Point => ({
    beat,
    value,
    shape,
    bend: 0,
  });
  const tempo: Lane = {
    id: 'tempo',
    target: { kind: 'tempo' },
    unit: 'own',
    on: true,
    points: [point(0, 92), point(8, 120)],
  };
  const ridden: Lane = {
    id: 'pan',
    target: { kind: 'channel', channel: 'r', param: 'pan' },
    unit: 'own',
    on: true,
    points: [point(0, -1), point(2, 1), point(4.5, 0)],
  };
  const rows = rowsOf(writeMovesMidi({ ...piece, lanes: [tempo] }, [ridden], 14));
  expect(rows.find(([, , kind]) => kind === 'Header')).toEqual(['0', '0', 'Header', '1', '2', '960']);
  expect(
    rows
      .filter(([, , kind]) => kind === 'Tempo')
      .map(([, tick, , length]) => [Number(tick) / 960, 60e6 / Number(length)]),
  ).toEqual([
    [0, expect.closeTo(92, 3)],
    [8, expect.closeTo(120, 3)],
  ]);
  expect(rows.find(([, , kind]) => kind === 'Time_signature')!.slice(3, 5)).toEqual(['4', '2']);
  expect(rows.filter(([, , kind]) => kind === 'Title_t').map((row) => row.slice(3).join(', '))).toEqual([
    '"Pier"',
    expect.stringContaining('Space: wide'),
  ]);
  const controls = rows
    .filter(([, , kind]) => kind === 'Control_c')
    .map(([, tick, , channel, number, value]) => [Number(tick) / 960, ...[channel, number, value].map(Number)]);
  // Each place in two halves, seven bits each, on a controller and on that 32 above it.
  expect(controls).toEqual([
    [0, 0, 1, 0],
    [0, 0, 33, 0],
    [2, 0, 1, 127],
    [2, 0, 33, 127],
    [4.5, 0, 1, 64],
    [4.5, 0, 33, 0],
  ]);
  expect(rows.filter(([, , kind]) => kind === 'End_track')).toHaveLength(2);
});
