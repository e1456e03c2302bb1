import fc from 'fast-check';
import { makeModulator } from '../automation/modulator';
import { barStart } from '../music/grid';
import { METRES, metreOf } from '../music/metre';
import { beatsToSamples } from '../music/tempo';
import { metreSchema, type Piece } from '../piece/piece';
import { linkedRail } from '../piece/links/link';
import { tempoOf } from '../piece/tempoOf';
import { clipOf, echoSlot, RATE, scene, soundOf, targetOf, type Scene } from '../piece/testing';
import { between } from '../testing';
import { engineOf, runEngine } from './testing';

const metres = fc.constantFrom(...METRES.filter(([count, unit]) => count / unit <= 1.25));
const inSections = (first: readonly [number, number], then: readonly [number, number], bpm: number): Partial<Piece> => {
  const own = metreSchema.parse(metreOf(...first));
  return {
    tempo: { bpm, ...own },
    lengthBeats: 64,
    sections: [{ id: 's', name: 'Then', beat: 4 * own.beatsPerBar, metre: metreSchema.parse(metreOf(...then)) }],
  };
};
const played = (made: Scene, seconds: number): ReturnType<typeof runEngine> => {
  const engine = engineOf(made);
  engine.play(0);
  return runEngine(engine, seconds);
};
const highestAt = (samples: Float32Array, from: number): number => {
  let at = from;
  for (let i = from; i < samples.length; i += 1) if (Math.abs(samples[i]!) > Math.abs(samples[at]!)) at = i;
  return at;
};

test('an echo of a bar is as long as the bars of the metre that is there', () => {
  fc.assert(
    fc.property(metres, metres, between(160, 280), (first, then, bpm) => {
      const click = soundOf(0.01, (i) => (i === 0 ? 1 : 0));
      const chain = [echoSlot('e', { timeL: '1 bar', feedback: 0, mix: 1, balance: 'mix' })];
      const more = inSections(first, then, bpm);
      const tempo = tempoOf({ ...scene([click], []).piece, ...more });
      for (const bar of [2, 8]) {
        const clips = [clipOf('a', 0, barStart(bar, tempo), 0.01)];
        const made = scene([click], [{ clips, chain }], more);
        const struck = beatsToSamples(barStart(bar, tempo), tempo, RATE);
        const wanted = beatsToSamples(barStart(bar + 1, tempo), tempo, RATE);
        const { left } = played(made, wanted / RATE + 1);
        expect(Math.abs(highestAt(left, struck + 64) - wanted)).toBeLessThanOrEqual(1);
      }
    }),
    { numRuns: 12 },
  );
});

test('steps of a bar change on the bar lines of the metre that is there, in playing and as moves', () => {
  fc.assert(
    fc.property(metres, metres, between(120, 280), (first, then, bpm) => {
      const level = soundOf(40, () => 0.25);
      const steps = makeModulator('steps', { id: 'm', name: 'Steps', rate: '1 bar', glide: 0, steps: [-1, 1] });
      const made = scene([level], [{ clips: [clipOf('a', 0, 0, 40)] }], {
        ...inSections(first, then, bpm),
        modulators: [steps],
        links: [{ id: 'l', modulator: 'm', target: targetOf('t0', null, 'pan'), depth: 0.5 }],
      });
      const tempo = tempoOf(made.piece);
      const rail = linkedRail(made.piece, targetOf('t0', null, 'pan'))!;
      const { left, right } = played(made, beatsToSamples(barStart(9, tempo), tempo, RATE) / RATE);
      for (let bar = 1; bar < 9; bar += 1) {
        const middle = barStart(bar + 0.5, tempo);
        const at = beatsToSamples(middle, tempo, RATE);
        const toTheRight = bar % 2 === 0;
        expect(right[at]! > left[at]!).toBe(toTheRight);
        expect(rail.at(middle) > 0.5).toBe(toTheRight);
        expect(rail.at(barStart(bar + 0.02, tempo)) > 0.5).toBe(toTheRight);
      }
    }),
    { numRuns: 20 },
  );
});
