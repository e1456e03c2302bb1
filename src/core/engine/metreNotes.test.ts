import fc from 'fast-check';
import { makeModulator } from '../automation/modulator';
import { barStart } from '../music/grid';
import { METRES, metreOf } from '../music/metre';
import { beatsToSamples } from '../music/tempo';
import { newSlot } from '../piece/edits/chain';
import { metreSchema, type Lane, type Piece, type Slot } from '../piece/piece';
import { linkedRail } from '../piece/links/link';
import { tempoOf } from '../piece/tempoOf';
import { clipOf, echoSlot, laneOf, RATE, scene, soundOf, targetOf, type Scene } from '../piece/testing';
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
const played = (made: Scene, seconds: number, from = 0): ReturnType<typeof runEngine> => {
  const engine = engineOf(made);
  engine.play(from);
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

/** Level of a standing sound at a beat, through some effects, played from one bar to the end of another. */
function levels(chain: readonly Slot[], more: Partial<Piece>, bars: number, fromBar = 1): (beat: number) => number {
  const made = scene([soundOf(60, () => 0.5)], [{ clips: [clipOf('a', 0, 0, 60)], chain: [...chain] }], more);
  const tempo = tempoOf(made.piece);
  const [from, to] = [fromBar, bars + 1].map((bar) => beatsToSamples(barStart(bar, tempo), tempo, RATE)) as [
    number,
    number,
  ];
  const { left } = played(made, (to - from) / RATE, from);
  return (beat) => left[beatsToSamples(beat, tempo, RATE) - from]!;
}

test('what turns once a bar stands alike in every bar, whatever metre and tempo do', () => {
  const tempoMoves = laneOf('t0', null, 'gain', [
    [0, 150],
    [16, 240],
  ]);
  const lanes: Lane[] = [{ ...tempoMoves, target: { kind: 'tempo' } }];
  fc.assert(
    fc.property(metres, metres, between(130, 260), fc.boolean(), (first, then, bpm, moves) => {
      const tremolo = newSlot('t', 'tremolo', 'neutral', { rate: '1 bar', depth: 0.8, shape: 'sine' });
      const more = { ...inSections(first, then, bpm), ...(moves ? { lanes } : {}) };
      const tempo = tempoOf({ ...scene([], []).piece, ...more });
      const at = levels([tremolo], more, 8);
      // Where bars are long and the tempo rises within them, a turn is not even in samples: by beats it is.
      const inBar = (bar: number, share: number): number => at(barStart(bar + share, tempo));
      for (const share of [0.2, 0.45, 0.7])
        for (const bar of [2, 3, 6, 8]) expect(Math.abs(inBar(bar, share) - inBar(4, share))).toBeLessThan(0.02);
      const later = levels([tremolo], more, 8, 7);
      for (const share of [1.2, 1.45, 1.7]) {
        const beat = barStart(7 + share, tempo);
        expect(Math.abs(later(beat) - at(beat))).toBeLessThan(0.02);
      }
    }),
    { numRuns: 12 },
  );
});

test('the strands of a pattern in bars take turns on the bar lines of the metre that is there', () => {
  fc.assert(
    fc.property(metres, metres, between(130, 260), fc.constantFrom('1 bar', '2 bars'), (first, then, bpm, step) => {
      const strand = (place: number, gain: number) => ({
        place,
        name: `Strand ${place}`,
        chain: [newSlot(`g${place}`, 'utility', 'neutral', { gain })],
      });
      const braid: Slot = {
        ...newSlot('b', 'braid', 'neutral', { plays: 'pattern', step, level1: 1, level2: 1, crossfade: 5 }),
        strands: [strand(1, 0), strand(2, -12)],
      };
      const more = inSections(first, then, bpm);
      const tempo = tempoOf({ ...scene([], []).piece, ...more });
      const at = levels([braid], more, 9);
      const bars = step === '1 bar' ? 1 : 2;
      for (let bar = 1; bar <= 8; bar += 1) {
        const isFirst = Math.floor((bar - 1) / bars) % 2 === 0;
        for (const share of [0.1, 0.9]) expect(at(barStart(bar + share, tempo)) > 0.3).toBe(isFirst);
      }
    }),
    { numRuns: 10 },
  );
});
