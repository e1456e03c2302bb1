import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { compilePlan } from './compilePlan';
import { clipOrder, planPrint } from './print';
import { render } from './render';
import { followedAt } from '../automation/follower';
import { followThrough } from './followed';
import { awayFrom, engineOf, runEngine } from './testing';
import { applyEdit } from '../piece/edit';
import { linksToMoves } from '../piece/edits/links';
import type { Link, Piece } from '../piece/piece';
import { laneFromLinks, linkedRail } from '../piece/links/link';
import { makeModulator, type Follower, type ModulatorChange, type ModulatorKind } from '../automation/modulator';
import { modulatorAt, modulatorTrack } from '../automation/modulatorTrack';

const follower: Follower = {
  id: 'm',
  name: 'Follower 1',
  kind: 'follower',
  follows: 't1',
  attackMs: 5,
  releaseMs: 200,
};
const link: Link = { id: 'l', modulator: 'm', target: { kind: 'channel', channel: 't0', param: 'pan' }, depth: 0.5 };
/** Half a volt standing on one track; on the other a tone of a tenth, -20 dB, from 1 s to 2 s. */
const standing = soundOf(6, () => 0.5);
const tone = soundOf(1, (i) => 0.1 * Math.sin((2 * Math.PI * 200 * i) / RATE));
const made = (): Scene =>
  scene([standing, tone], [{ clips: [clipOf('a', 0, 0, 6)] }, { clips: [clipOf('b', 1, 2, 1)], gain: 0 }], {
    modulators: [follower],
    links: [link],
  });

/** Where the pan of the standing signal is, from what is left of its left side. */
const panAt = (left: Float32Array, seconds: number): number =>
  (2 / Math.PI) * Math.acos(Math.min(1, left[Math.round(seconds * RATE)]! / 0.5));
const played = (scene: Scene, from: number, seconds: number): Float32Array => {
  const engine = engineOf(scene);
  engine.play(from * RATE);
  return runEngine(engine, seconds).left;
};

describe('a follower', () => {
  test('stands as high as its track is loud, whatever its fader; rises by its attack and falls by its release', () => {
    const left = played(made(), 0, 4);
    // -20 dB is two thirds of the way from -60 up; pan goes half its rail, from the middle to the right.
    expect(panAt(left, 0.9)).toBeCloseTo(0, 2);
    expect(panAt(left, 1.9)).toBeCloseTo(2 / 3, 1);
    // Its level falls by a time constant of 200 ms, 8.7 dB in each.
    expect(panAt(left, 2.4)).toBeCloseTo(1 - (20 + 2 * 8.69) / 60, 1);
    expect(panAt(left, 3.5)).toBeCloseTo(0, 2);
  });

  test('started in the middle it stands as if played from the start', () => {
    const [whole, late] = [played(made(), 0, 4), played(made(), 1.5, 2)];
    let away = 0;
    for (let i = 0.1 * RATE; i < 2 * RATE; i += 1) away = Math.max(away, Math.abs(late[i]! - whole[i + 1.5 * RATE]!));
    expect(away).toBeLessThan(0.002);
  });

  test('a print of what it turns sounds as live, though the followed track is not in it', () => {
    const scene0 = made();
    const slot = { id: 's', effect: 'utility', preset: null, on: true, values: { gain: 0 } };
    const turned: Piece = {
      ...scene0.piece,
      tracks: scene0.piece.tracks.map((track, i) => (i === 0 ? { ...track, chain: [slot] } : track)),
      links: [{ ...link, target: { kind: 'effect', channel: 't0', effect: 's', param: 'pan' } }],
    };
    const printed = render({ ...planPrint(turned, clipOrder(turned, 'a', 'mix', 0)!), sounds: scene0.sounds })!;
    expect(awayFrom(printed.left.subarray(0, 4 * RATE), played({ ...scene0, piece: turned }, 0, 4))).toBeLessThan(1e-4);
  });

  test('written as moves it sounds as before, also within a stretch alone while it goes on elsewhere', () => {
    const { piece, sounds } = made();
    const whole = played({ piece, sounds }, 0, 4);
    for (const within of [null, { start: 3, end: 5 }]) {
      const lane = laneFromLinks(piece, link.target, within?.start ?? 0, within?.end ?? 12, 'lane', (modulator) => {
        if (modulator.kind !== 'follower') throw new Error('There is only a follower.');
        const levels = followThrough(piece, modulator, sounds);
        return (beat) => followedAt(levels, beat);
      })!;
      const { piece: written } = applyEdit(piece, linksToMoves, {
        target: link.target,
        lane,
        ...(within ? { within } : {}),
      });
      expect(written.links.map(({ rests }) => rests)).toEqual(within ? [[within]] : []);
      expect(awayFrom(played({ piece: written, sounds }, 0, 4), whole)).toBeLessThan(0.02);
    }
    expect(linkedRail(piece, link.target)).toMatchObject({ low: 0.5, high: 1 });
  });

  test('what it follows may be gone: it rests', () => {
    const { piece, sounds } = made();
    const left = played({ piece: { ...piece, tracks: piece.tracks.slice(0, 1) }, sounds }, 0, 2);
    expect(panAt(left, 1.8)).toBeCloseTo(0, 4);
    expect(() =>
      render({ plan: compilePlan(piece), sounds, fromSample: 0, toSample: 100, tail: { kind: 'seconds', seconds: 0 } }),
    ).not.toThrow();
  });
});

test('what goes through once stands still before and after', () => {
  const context = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: RATE };
  const at = ({ kind, ...more }: ModulatorChange & { readonly kind: ModulatorKind }, beat: number): number =>
    modulatorAt(
      modulatorTrack(makeModulator(kind, { id: 'm', name: 'Once', rate: '1/4', onceFrom: 8, ...more }), context),
      beat * 0.5 * RATE,
    );
  const steps = { kind: 'steps' as const, steps: [-1, 0.5, 1], glide: 0.5 };
  expect([0, 7.9, 8, 8.9, 9.9, 10.9, 40].map((beat) => at(steps, beat))).toEqual([-1, -1, -1, -1, 0.5, 1, 1]);
  const rise = { kind: 'lfo', shape: 'triangle' } as const;
  expect([0, 8, 8.25, 8.5, 9, 20].map((beat) => Math.round(100 * at(rise, beat)) / 100)).toEqual([0, 0, 1, 0, 0, 0]);
});

test('steps that come by chance: as often as said, the same each time, and what does not come leaves the one before standing', () => {
  const context = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: RATE };
  const steps = {
    id: 'm',
    name: 'Steps',
    rate: '1/4',
    glide: 0,
    steps: Array.from({ length: 64 }, (_, i) => i / 64),
    roll: 3,
  };
  const values = (chance: number): number[] =>
    Array.from({ length: 640 }, (_, beat) =>
      modulatorAt(modulatorTrack(makeModulator('steps', { ...steps, chance }), context), (beat + 0.5) * 0.5 * RATE),
    );
  expect(values(1).every((value, i) => value === (i % 64) / 64)).toBe(true);
  const half = values(0.5);
  expect(half).toEqual(values(0.5));
  const came = half.filter((value, i) => value === (i % 64) / 64).length;
  expect(came / 640).toBeGreaterThan(0.44);
  expect(came / 640).toBeLessThan(0.56);
  half.forEach((value, i) => value !== (i % 64) / 64 && i > 0 && expect(value).toBe(half[i - 1]));
});
