import { TEMPLATES } from '../piece/templates';
import { pieceSchema } from '../piece/piece';
import { clipOf, hashOf, RATE, soundOf } from '../piece/testing';
import { channelIds, chainOf, slotsIn } from '../piece/find';
import { awayFrom, engineOf, runEngine } from './testing';

const noise = soundOf(2, (i) => 0.2 * Math.sin(i * i * 0.0007));
const counting = (): (() => string) => {
  let n = 0;
  return () => `id${(n += 1)}`;
};

test.each(TEMPLATES.map((template) => [template.name, template] as const))(
  '%s is a piece that sounds',
  (_name, made) => {
    const piece = pieceSchema.parse(made.make('new', counting()));
    const ids = channelIds(piece).flatMap((channel) => [
      channel,
      ...slotsIn(chainOf(piece, channel)).map(({ id }) => id),
    ]);
    expect(new Set(ids).size).toBe(ids.length);
    if (piece.tracks.length === 0) return;
    const sounds = { [hashOf(0)]: { name: 'Noise', frames: noise.length, sampleRate: RATE, channels: 1 as const } };
    const tracks = piece.tracks.map((track, i) => (i === 0 ? { ...track, clips: [clipOf('a', 0, 0, 2)] } : track));
    const engine = engineOf({ piece: { ...piece, sounds, tracks }, sounds: new Map([[hashOf(0), [noise]]]) });
    engine.play(0);
    const { left } = runEngine(engine, 1);
    // The limiter at the end holds it back by its look-ahead; nothing else touches what is not sent anywhere.
    const late = left.findIndex((x) => x !== 0);
    expect(late).toBeLessThan(0.02 * RATE);
    expect(left.every(Number.isFinite)).toBe(true);
    const settled = 0.1 * RATE;
    if (made.id !== 'sound')
      expect(
        awayFrom(
          left.subarray(late + settled),
          noise.subarray(settled + 1, settled + 1 + left.length - late - settled),
        ),
      ).toBeLessThan(0.05);
  },
);
