import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import { compilePlan } from './compilePlan';
import { planPrint } from './print';
import { render } from './render';
import { engineOf, peakIn, runEngine } from './testing';
import { applyEdit, EditRefused } from '../piece/edit';
import { newSlot, setEffectSide } from '../piece/edits/chain';
import { removeTrack } from '../piece/edits/channels';

const tone = soundOf(4, (i) => 0.5 * Math.sin((2 * Math.PI * 300 * i) / RATE));
const knock = soundOf(0.5, (i) => Math.sin((2 * Math.PI * 90 * i) / RATE));
/** A tone with a compressor that listens to the knock at the second second, which is on a track before or behind it. */
function listening(knockFirst: boolean, mute: boolean): Scene {
  const slot = {
    ...newSlot('c', 'compressor', 'neutral', { source: 'side', threshold: -20, ratio: 20, attack: 1, release: 60 }),
    side: knockFirst ? 't0' : 't1',
  };
  const held = { clips: [clipOf('a', 0, 0, 4)], chain: [slot] };
  const led = { clips: [clipOf('k', 1, 2, 0.5)], mute };
  return scene([tone, knock], knockFirst ? [led, held] : [held, led]);
}

test.each([[true], [false]])(
  'a tone bows to the knock of another track and comes back, wherever that track lies (before it: %s), muted or not',
  (first) => {
    const from = listening(first, true);
    const engine = engineOf(from);
    engine.play(0);
    const { left } = runEngine(engine, 3);
    expect(peakIn(left, RATE / 2, RATE - 100)).toBeCloseTo(0.5, 3);
    expect(peakIn(left, RATE + 2000, RATE + 20_000)).toBeLessThan(0.12);
    expect(peakIn(left, 2.5 * RATE)).toBeGreaterThan(0.49);
  },
);

test('printed alone it bows as it does live', () => {
  const from = listening(false, true);
  const job = planPrint(from.piece, { channel: 't0', clip: null, fromBeat: 0, toBeat: 8, part: 'mix', tailBars: 0 });
  const print = render({ ...job, sounds: from.sounds })!.left;
  const live = render({
    plan: compilePlan(from.piece),
    sounds: from.sounds,
    fromSample: 0,
    toSample: 4 * RATE,
    tail: { kind: 'seconds', seconds: 0 },
  })!.left;
  expect(print.every((x, i) => Math.abs(x - live[i]!) < 1e-6)).toBe(true);
});

test('it may not listen to its own track; when the other track goes it listens to itself', () => {
  const { piece } = listening(false, false);
  expect(() => applyEdit(piece, setEffectSide, { channel: 't0', slot: 'c', side: 't0' })).toThrow(EditRefused);
  expect(applyEdit(piece, removeTrack, { track: 't1' }).piece.tracks[0]!.chain[0]!.side).toBeUndefined();
});
