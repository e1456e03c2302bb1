import { compilePlan } from '../engine/plan';
import { render } from '../engine/render';
import { beatsToSamples } from '../music/tempo';
import { applyEdit } from '../piece/edit';
import { layRecipe } from '../piece/edits/recipes';
import { emptyPiece, type Piece } from '../piece/piece';
import { riserSound, riserTrack, type RiserSettings } from './riser';

const HASH = 'a'.repeat(64);
const start: Piece = emptyPiece('p', 'Piece');
const range = { start: 8, end: 24 };
const plain: RiserSettings = { way: 'rise', source: 'noise', lowHz: 200, highHz: 12_000, level: 0.8, gate: false, space: false, roll: 7 };

function made(change: Partial<RiserSettings>): { readonly piece: Piece; readonly left: Float32Array; readonly from: number; readonly to: number } {
  const settings = { ...plain, ...change };
  const channels = riserSound(start, range, settings);
  const { track, lanes } = riserTrack(start, range, settings, HASH, 'Riser', { track: 'riser', parts: 'parts' });
  const { piece } = applyEdit(start, layRecipe, { what: 'Riser', track, lanes: [...lanes], sounds: { [HASH]: { name: 'Riser', frames: channels[0]!.length, sampleRate: start.sampleRate, channels: 2 } } });
  const at = (beat: number): number => beatsToSamples(beat, piece.tempo, piece.sampleRate);
  const { left } = render({ plan: compilePlan(piece), sounds: new Map([[HASH, channels]]), fromSample: 0, toSample: at(28), tail: { kind: 'seconds', seconds: 0 } })!;
  return { piece, left, from: at(range.start), to: at(range.end) };
}

const power = (x: Float32Array, from: number, to: number): number => x.subarray(Math.round(from), Math.round(to)).reduce((sum, y) => sum + y * y, 0) / (to - from);
/** Power of the differences of neighbours against power: rises with the centre of a spectrum. */
const brightness = (x: Float32Array, from: number, to: number): number => {
  let differences = 0;
  for (let i = Math.round(from) + 1; i < to; i += 1) differences += (x[i]! - x[i - 1]!) ** 2;
  return differences / (to - from) / power(x, from, to);
};

test.each(['noise', 'tone'] as const)('a riser of %s grows and brightens all the way into the bar, and is cut there without a click', (source) => {
  const { left, from, to } = made({ source });
  const part = (i: number): [number, number] => [from + ((to - from) * i) / 8, from + ((to - from) * (i + 1)) / 8];
  for (let i = 1; i < 8; i += 1) {
    expect(power(left, ...part(i))).toBeGreaterThan(power(left, ...part(i - 1)));
    expect(brightness(left, ...part(i))).toBeGreaterThan(brightness(left, ...part(i - 1)));
  }
  expect(power(left, 0, from)).toBe(0);
  // What the filter still holds is gone within a few milliseconds.
  expect(power(left, to + 480, to + 4800)).toBeLessThan(1e-6 * power(left, ...part(7)));
  let step = 0;
  for (let i = to - 20; i < to + 400; i += 1) step = Math.max(step, Math.abs(left[i]! - left[i - 1]!));
  expect(step).toBeLessThan(1.2 * Math.sqrt(power(left, ...part(7)) * brightness(left, ...part(7))) * 4);
});

test('a fall is a riser the other way round', () => {
  const { left, from, to } = made({ way: 'fall' });
  const part = (i: number): [number, number] => [from + ((to - from) * i) / 8, from + ((to - from) * (i + 1)) / 8];
  for (let i = 1; i < 8; i += 1) expect(power(left, ...part(i))).toBeLessThan(power(left, ...part(i - 1)));
});

test('the tone ends two octaves above where it began', () => {
  const sound = riserSound(start, range, { ...plain, source: 'tone' })[0]!;
  const hz = (from: number, to: number): number => {
    let ups = 0;
    for (let i = from + 1; i < to; i += 1) if (sound[i - 1]! < 0 && sound[i]! >= 0) ups += 1;
    return (ups * start.sampleRate) / (to - from);
  };
  const n = sound.length;
  const second = start.sampleRate;
  // Over the first and the last second the pitch moves by a known share of its way.
  const share = second / n;
  expect(hz(0, second)).toBeCloseTo(110 * Math.pow(2, share), -1);
  expect(hz(n - second, n)).toBeCloseTo(440 * Math.pow(2, -share), -1);
});

test('a gate opens ever more often, a space rings on past the bar, and the same roll gives the same noise', () => {
  const { piece, left, from, to } = made({ gate: true });
  const gain = piece.lanes.find(({ target }) => target.param === 'gain')!;
  const opened = gain.points.filter(({ value }, i) => value > 0 && i < gain.points.length - 1).map(({ beat }) => beat);
  const gaps = opened.slice(1).map((beat, i) => beat - opened[i]!);
  for (let i = 1; i < gaps.length; i += 1) expect(gaps[i]).toBeLessThanOrEqual(gaps[i - 1]!);
  expect([gaps[0], gaps[gaps.length - 1]]).toEqual([1, 0.125]);
  // The last eighth of a beat: open for its first half, shut for its second.
  const half = (to - from) / 16 / 16;
  expect(power(left, to - 0.3 * half, to)).toBeLessThan(0.05 * power(left, to - 1.5 * half, to - half));
  expect(power(made({ space: true }).left, to + 4800, to + 9600)).toBeGreaterThan(1e-6);
  const [one, again, other] = [plain, plain, { ...plain, roll: 8 }].map((settings) => riserSound(start, range, settings)[0]!);
  expect(one!.every((x, i) => x === again![i])).toBe(true);
  expect(one!.some((x, i) => x !== other![i])).toBe(true);
});
