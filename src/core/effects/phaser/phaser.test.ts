import { PLAIN_CONTEXT } from '../../params/param';
import { phaserImplementation } from './implementation';
import { phaser } from './phaser';
import type { ResponsePicture } from '../pictures';

const pictured = (values: Record<string, number | string>): ResponsePicture =>
  phaserImplementation.picture({ ...phaser.presets[0]!.values, ...values }, PLAIN_CONTEXT) as ResponsePicture;
const hzOf = ({ hz }: ResponsePicture, levels: readonly number[]): number => hz[levels.indexOf(Math.min(...levels))]!;

describe('the picture of a phaser that moves', () => {
  test('two stages notch at the centre; at each end of the sweep the notch stands that many octaves away', () => {
    const picture = pictured({ stages: 2, centre: 800, depth: 2, rate: 0.5 });
    const { octaves, left } = picture.sweep!;
    expect(octaves[0]).toBe(-2);
    expect(octaves[octaves.length - 1]).toBe(2);
    octaves.forEach((octave, i) =>
      expect(Math.abs(Math.log2(hzOf(picture, left[i]!) / (800 * 2 ** octave)))).toBeLessThan(0.06),
    );
  });

  test('one that stands still has no sweep; the right side is drawn apart when it runs behind', () => {
    expect(pictured({ depth: 0 }).sweep).toBeUndefined();
    expect(pictured({ depth: 1 }).sweep!.right).toBeNull();
    expect(pictured({ depth: 1, phase: 90 }).sweep).toMatchObject({ behindTurns: 0.25, hz: 0.3, depth: 1 });
  });
});
