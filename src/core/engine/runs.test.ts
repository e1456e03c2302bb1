import fc from 'fast-check';
import { makeModulator, type ModulatorChange } from '../automation/modulator';
import { beatsToSamples, samplesToBeats } from '../music/tempo';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Piece } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import { clipOf, RATE, scene, soundOf, targetOf } from '../piece/testing';
import { between } from '../testing';
import { render } from './render';
import { compilePlan } from './compilePlan';
import { awayFrom, engineOf, runEngine } from './testing';

const SECONDS = 8;
const noise = soundOf(SECONDS, (i) => 0.4 * Math.sin(i * i * 0.0007));
const STEPS = [0.5, -0.25, 1, -1, 0.125];
/** Frames of one step of the engine. */
const STEP = 64;

interface Held {
  readonly from: number;
  readonly to: number;
}

const tempoLane = (to: number): Lane => ({
  id: 'tempo',
  target: { kind: 'tempo' },
  unit: 'own',
  on: true,
  points: [
    { beat: 0, value: 90, shape: 'line', bend: 0 },
    { beat: 12, value: to, shape: 'line', bend: 0 },
  ],
});

/** A stutter that is held between beats, with a run on its level. */
function withRun(run: ModulatorChange, held: readonly Held[], bpm: number, lanes: readonly Lane[] = []) {
  const lane: Lane = {
    id: 'held',
    target: targetOf('t0', 'h', 'held'),
    unit: 'own',
    on: true,
    points: [
      { beat: 0, value: 0, shape: 'hold', bend: 0 },
      ...held.flatMap(({ from, to }) => [
        { beat: from, value: 1, shape: 'hold' as const, bend: 0 },
        { beat: to, value: 0, shape: 'hold' as const, bend: 0 },
      ]),
    ],
  };
  const chain = [newSlot('h', 'stutter', 'neutral', { startsOn: 'free', endsOn: 'free', fadeOut: 0 })];
  const more: Partial<Piece> = {
    tempo: { bpm, beatsPerBar: 4 },
    lengthBeats: 64,
    lanes: [lane, ...lanes],
    modulators: [makeModulator('run', { id: 'm', name: 'Run', hold: 'h', steps: STEPS, glide: 0, ...run })],
    links: [{ id: 'l', modulator: 'm', target: targetOf('t0', 'h', 'level'), depth: 0.5 }],
  };
  return scene([noise], [{ clips: [clipOf('a', 0, 0, SECONDS)], chain }], more);
}

/** Value of the run, and its step, at the end of each step of the engine. */
function readings(
  made: ReturnType<typeof withRun>,
  seconds: number,
): { position: number; turn: number; step: number }[] {
  const engine = engineOf(made);
  engine.play(0);
  const found: { position: number; turn: number; step: number }[] = [];
  for (let at = 0; at < seconds * RATE; at += STEP) {
    runEngine(engine, STEP / RATE, STEP);
    found.push({ position: at + STEP, turn: engine.modulatorOutputOf(0), step: engine.runStepOf(0) });
  }
  return found;
}

test('a run begins with its hold, goes by its rate, and begins anew with the next hold, at any rate and tempo', () => {
  fc.assert(
    fc.property(between(2, 20), between(61, 187), between(0.4, 1.2), between(0.3, 1), (hz, bpm, from, length) => {
      const second = from + length + 0.5;
      const held = [
        { from, to: from + length },
        { from: second, to: second + length },
      ];
      const made = withRun({ rate: hz }, held, bpm);
      const sampleOf = (beat: number): number => Math.round((beat * 60 * RATE) / bpm);
      const frames = RATE / hz;
      for (const { position, turn, step } of readings(made, ((second + length) * 60) / bpm)) {
        const sounding = held.find((one) => position > sampleOf(one.from) + STEP && position < sampleOf(one.to));
        if (!sounding) continue;
        const turns = (position - sampleOf(sounding.from)) / frames;
        // Where a step ends within a sample of the reading, either is right.
        if (Math.abs(turns - Math.round(turns)) * frames < 1.5) continue;
        expect([position, step, turn]).toEqual([
          position,
          Math.floor(turns) % STEPS.length,
          STEPS[Math.floor(turns) % STEPS.length],
        ]);
      }
    }),
    { numRuns: 15 },
  );
});

test('while nothing is held it stands at its first step, so that the hold begins with that', () => {
  const found = readings(withRun({ rate: 9 }, [{ from: 1, to: 2 }], 120), 1.5);
  for (const { position, turn, step } of found.filter((one) => one.position <= 0.5 * RATE || one.position > 1.1 * RATE))
    expect([position, turn, step]).toEqual([position, STEPS[0], -1]);
  expect(found.some(({ step }) => step > 0)).toBe(true);
});

test.each([50, 170])(
  'by note values its steps lie on the notes from the start on, while the tempo goes to %d',
  (to) => {
    const made = withRun({ rate: '1/16' }, [{ from: 2, to: 7 }], 120, [tempoLane(to)]);
    const { piece } = made;
    const start = beatsToSamples(2, tempoOf(piece), RATE);
    const end = beatsToSamples(7, tempoOf(piece), RATE);
    let compared = 0;
    for (const { position, step } of readings(made, end / RATE)) {
      if (position <= start + STEP || position >= end) continue;
      const notes =
        (samplesToBeats(position, tempoOf(piece), RATE) - samplesToBeats(start, tempoOf(piece), RATE)) / 0.25;
      if (Math.abs(notes - Math.round(notes)) < 0.01) continue;
      expect([position, step]).toEqual([position, Math.floor(notes) % STEPS.length]);
      compared += 1;
    }
    expect(compared).toBeGreaterThan(1000);
  },
);

test('no step is lit any more once playing stops, though the hold is still down', () => {
  const engine = started(withRun({ rate: 4 }, [{ from: 1, to: 20 }], 120));
  runEngine(engine, 1.2);
  expect(engine.runStepOf(0)).toBeGreaterThan(0);
  engine.stop();
  runEngine(engine, 0.1);
  expect(engine.runStepOf(0)).toBe(-1);
});

describe('what a run is set to', () => {
  const turnsOf = (run: ModulatorChange): number[] =>
    readings(withRun({ rate: 10, ...run }, [{ from: 1, to: 4 }], 120), 2)
      .filter(({ position }) => position > 0.5 * RATE + 2 * STEP)
      .map(({ turn }) => turn);

  test('once: it goes through and stays at its last step', () => {
    const turns = turnsOf({ once: true });
    expect(new Set(turns.slice(-Math.floor(0.5 * (RATE / STEP))))).toEqual(new Set([STEPS[4]]));
    expect(new Set(turns)).toEqual(new Set(STEPS));
  });

  test('a step that is off, and a run that is off, leave the rail where it is', () => {
    expect(new Set(turnsOf({ off: [1, 3] }))).toEqual(new Set([STEPS[0], 0, STEPS[2], STEPS[4]]));
    expect(new Set(turnsOf({ on: false }))).toEqual(new Set([0]));
  });

  test('glide: it comes from the step before over its share of the step, and at its first step from nowhere', () => {
    const turns = turnsOf({ glide: 1 });
    expect(turns[0]).toBeCloseTo(STEPS[0]!, 12);
    const jumps = turns.slice(1).map((turn, i) => Math.abs(turn - turns[i]!));
    expect(Math.max(...jumps)).toBeLessThan((2 * STEP * 10) / RATE + 1e-9);
  });

  test('chance: the same roll is the same row for ever, another one is another', () => {
    const row = (roll: number): string => turnsOf({ chance: 0.5, roll }).join();
    expect(row(7)).toBe(row(7));
    expect(new Set([1, 2, 3, 4, 5, 6].map(row)).size).toBeGreaterThan(3);
  });
});

test('its first step is heard from the first sample of the hold on', () => {
  // A first step that shuts the level altogether: what is held begins silent.
  const made = withRun({ rate: 1, steps: [-1, 1] }, [{ from: 2, to: 6 }], 120);
  const alone = {
    ...made,
    piece: {
      ...made.piece,
      tracks: made.piece.tracks.map((track) => ({
        ...track,
        chain: [newSlot('h', 'stutter', 'neutral', { heard: 'whileHeld', startsOn: 'free', endsOn: 'free' })],
      })),
      links: made.piece.links.map((link) => ({ ...link, depth: 1 })),
    },
  };
  const { left } = runEngine(started(alone), 3.2);
  const loudest = (from: number, to: number): number =>
    left.subarray(from, to).reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  expect(loudest(RATE, 1.9 * RATE)).toBe(0);
  expect(loudest(2.1 * RATE, 2.9 * RATE)).toBeGreaterThan(0.1);
});

function started(made: ReturnType<typeof withRun>): ReturnType<typeof engineOf> {
  const engine = engineOf(made);
  engine.play(0);
  return engine;
}

test('printed it is what was played, whatever the blocks', () => {
  const made = withRun({ rate: '1/32', chance: 0.7, glide: 0.4 }, [{ from: 1.3, to: 6 }], 97, [tempoLane(140)]);
  const engine = started(made);
  const played = runEngine(engine, 4, 441).left.subarray(engine.latency);
  const printed = render({
    plan: compilePlan(made.piece),
    sounds: made.sounds,
    fromSample: 0,
    toSample: 4 * RATE,
    tail: { kind: 'seconds', seconds: 0 },
  })!;
  expect(awayFrom(printed.left.subarray(0, played.length), played)).toBe(0);
  expect(played.some((x) => x !== 0)).toBe(true);
});
