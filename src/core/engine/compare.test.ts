import { clipOf, echoSlot, laneOf, RATE, scene, soundOf } from '../piece/testing';
import fc from 'fast-check';
import { between } from '../testing';
import { soundFigures } from '../analysis/soundFigures';
import { applyEdit } from '../piece/edit';
import { dropKept, keepSetting, takeKept } from '../piece/edits/storedVariants';
import { newSlot, removeEffect, setParams } from '../piece/edits/chain';
import { recordMove } from '../piece/edits/lanes';
import { WIDE_WAYS } from '../piece/wideWays';
import { compareJob, matchingGains, withChain } from './compare';
import { compilePlan } from './compilePlan';
import { render } from './render';

const noise = soundOf(10, (i) => 0.3 * Math.sin(i * i * 1e-4) * Math.cos((2 * Math.PI * 3 * i) / RATE));
const mono = scene([noise], [{ clips: [clipOf('c', 0, 0, 10)] }]);

const figuresOf = (chain: Parameters<typeof compareJob>[2]) => {
  const { plan, fromSample, toSample } = compareJob(mono.piece, 't0', chain);
  const { left, right } = render({
    plan,
    sounds: mono.sounds,
    fromSample,
    toSample,
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  return soundFigures(left, right, RATE);
};

test('a mono part has no width and loses nothing in mono; turned over at one side it is all side', () => {
  expect(figuresOf([])).toMatchObject({ width: 0, monoLossDb: 0 });
  const turned = figuresOf([newSlot('u', 'utility', 'neutral', { turnRight: true })]);
  expect(turned.width).toBeGreaterThan(0.99);
  expect(turned.monoLossDb).toBeLessThan(-30);
});

test.each(WIDE_WAYS.map((way) => [way.name, way] as const))('%s makes a mono part wider', (_name, way) => {
  const { width, lufs } = figuresOf(way.slots('way'));
  expect(lufs).not.toBeNull();
  expect(width).toBeGreaterThan(0.01);
});

test('the complementary combs cost nothing in mono where a side delay does', () => {
  const loss = (id: string): number => {
    const chain = WIDE_WAYS.find((way) => way.id === id)!.slots('way');
    const { plan, fromSample, toSample } = compareJob(mono.piece, 't0', chain);
    const { left, right } = render({
      plan,
      sounds: mono.sounds,
      fromSample,
      toSample,
      tail: { kind: 'seconds', seconds: 0 },
    })!;
    const sum = left.map((x, i) => 0.5 * (x + right[i]!));
    const power = (samples: Float32Array): number => samples.reduce((all, x) => all + x * x, 0);
    return 10 * Math.log10(power(sum) / power(noise));
  };
  expect(Math.abs(loss('combs'))).toBeLessThan(0.5);
  expect(loss('sideDelay')).toBeLessThan(-1);
});

test('what is matched is as loud as the least loud, and nothing is made louder', () => {
  fc.assert(
    fc.property(fc.array(fc.option(between(-60, 0)), { minLength: 1, maxLength: 8 }), (levels) => {
      const gains = matchingGains(levels);
      const heard = levels.flatMap((level, i) => (level === null ? [] : [level + gains[i]!]));
      expect(gains.every((gain) => gain <= 0)).toBe(true);
      expect(heard.every((level) => Math.abs(level - Math.min(...heard)) < 1e-9)).toBe(true);
    }),
  );
});

test('an audition leaves the piece as it is, and its level is changed at the end of the chain', () => {
  const changed = withChain(mono.piece, 't0', [echoSlot('e', {})], -6);
  expect(compilePlan(changed).channels[0]!.slots.map(({ effect }) => effect)).toEqual(['echo', 'utility']);
  expect(mono.piece.tracks[0]!.chain).toEqual([]);
});

test('a kept setting comes back as it was, with the moves of what is in it', () => {
  const start = {
    ...mono.piece,
    tracks: [
      { ...mono.piece.tracks[0]!, chain: [echoSlot('e', { feedback: 0.3 }), newSlot('f', 'filter', 'neutral')] },
    ],
  };
  const kept = applyEdit(start, keepSetting, { channel: 't0', id: 'a', called: 'A' }).piece;
  const turned = applyEdit(kept, setParams, { channel: 't0', slot: 'e', values: { feedback: 0.9 } }).piece;
  const moved = applyEdit(turned, recordMove, { lane: laneOf('t0', 'e', 'feedback', [[0, 0.5]]), how: 'draw' }).piece;
  const lost = applyEdit(moved, removeEffect, { channel: 't0', slot: 'f' }).piece;
  const back = applyEdit(lost, takeKept, { channel: 't0', id: 'a' }).piece;
  expect(back.tracks[0]!.chain).toEqual(start.tracks[0]!.chain);
  expect(back.lanes).toHaveLength(1);
  expect(applyEdit(back, dropKept, { channel: 't0', id: 'a' }).piece.tracks[0]!.kept).toEqual([]);
});
