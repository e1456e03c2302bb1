import fc from 'fast-check';
import { makeModulator } from '../../core/automation/modulator';
import type { Player } from '../../audio/player';
import type { Engine } from '../../core/engine/engine';
import type { Gesture } from '../../core/engine/gesture';
import { compilePlan } from '../../core/engine/compilePlan';
import { awayFrom, engineOf, runEngine } from '../../core/engine/testing';
import { positionsAt } from '../../core/piece/moves/fieldMotion';
import { newSlot } from '../../core/piece/edits/chain';
import { readyField } from '../../core/piece/edits/fields';
import { effectOf } from '../../core/effects/catalogue';
import { initialValues, toEngineNumber } from '../../core/params/resolve';
import { contextOf } from '../../core/piece/find';
import type { EffectTarget, Piece, Slot, Target } from '../../core/piece/piece';
import { clipOf, echoSlot, RATE, scene, soundOf, targetOf, type Scene } from '../../core/piece/testing';
import { useOpenPiece } from '../../data/openPiece';
import { useRecording } from '../../data/recording';
import { LivePlay } from './livePlay';
import { MoveRecorder } from './moveRecorder';
import { usePlayed } from './played';

const SECONDS = 6;
const noise = soundOf(SECONDS, (i) => 0.3 * Math.sin(i * i * 0.0007));
const hold: EffectTarget = { kind: 'effect', channel: 't0', effect: 'h', param: 'held' };
const taken: EffectTarget = { kind: 'effect', channel: 't0', effect: 'b', param: 'taken' };
const send: Target = { kind: 'send', channel: 't0', to: 'r' };

/** A braid that plays a pattern of three strands, one of them late. */
const braid: Slot = {
  ...newSlot('b', 'braid', 'neutral', {
    plays: 'pattern',
    step: '1/16',
    order: 'thrown',
    open: 0.8,
    level1: 1,
    level2: 1,
  }),
  strands: [
    { place: 1, name: 'As it is', chain: [] },
    { place: 2, name: 'Late', chain: [newSlot('l', 'limiter', 'neutral')] },
    { place: 3, name: 'Echo', chain: [echoSlot('be', {})] },
  ],
};

/** A track with a hold and its run, a filter that a field plays, more effects, and a return with an echo. */
function sceneToPlay(bpm: number, hold: string, more: readonly Slot[] = [], endsOn = 'free'): Scene {
  const made = scene(
    [noise],
    [{ clips: [clipOf('a', 0, 0, SECONDS)], chain: [newSlot('h', hold, 'neutral', { endsOn })] }],
    {
      tempo: { bpm, beatsPerBar: 4 },
      lengthBeats: 64,
    },
  );
  const [track] = made.piece.tracks;
  const returns = [
    { id: 'r', name: 'R', gain: 1, pan: 0, mute: false, solo: false, sends: [], chain: [echoSlot('e', { mix: 1 })] },
  ];
  const sweep = effectOf('filter').fields![0]!;
  const { field, effect } = readyField(made.piece, 't0', 'filter', sweep, { field: 'f', slot: 'low' });
  const chain = [...track!.chain, effect.slot, ...more];
  const sends = [{ to: 'r', level: 0, pre: false }];
  return {
    ...made,
    piece: {
      ...made.piece,
      tracks: [{ ...track!, chain, sends }],
      returns,
      fields: [{ ...field, lift: 'glide' }],
      modulators: [
        makeModulator('run', {
          id: 'run',
          name: 'Run',
          hold: 'h',
          rate: '1/32',
          steps: [0, -1, 0.4, -0.3],
          chance: 0.8,
        }),
      ],
      links: [{ id: 'l', modulator: 'run', target: targetOf('t0', 'h', 'level'), depth: 0.4 }],
    },
  };
}

let unsubscribe = (): void => undefined;

/** The studio's sound without a browser: the engine itself, told and heard as by messages. */
class Stage {
  readonly engine: Engine;
  readonly live: LivePlay;
  readonly recorder: MoveRecorder;
  private readonly waiting = new Map<number, (sample: number) => void>();
  private tags = 0;
  /** What the parameters of the hold were set to last, by their index. */
  readonly held = new Map<number, number>();
  position = 0;

  constructor(made: Scene, armed: boolean) {
    this.engine = engineOf(made);
    useOpenPiece.setState({
      piece: made.piece,
      entries: [],
      cursor: 0,
      savedEntries: 0,
      cutSince: Infinity,
      change: 0,
    });
    usePlayed.setState({ now: {}, presets: {} });
    useRecording.setState({ armed, playing: true, mode: 'touch', modes: {}, takes: {}, passes: {}, punch: null });
    const player = this as unknown as Player;
    this.recorder = new MoveRecorder(player);
    this.live = new LivePlay(player, this.recorder, () => undefined);
    unsubscribe();
    unsubscribe = useOpenPiece.subscribe((now, before) => {
      if (now.piece !== before.piece) this.engine.setPlan(compilePlan(now.piece!));
    });
    this.engine.play(0);
    this.recorder.begin();
  }

  heardAt(): number {
    return this.position;
  }

  gesture(gesture: Gesture, onApplied?: (sample: number) => void): void {
    if (gesture.slot === 'h' && gesture.kind === 'hold') this.held.set(gesture.value, gesture.to);
    if (onApplied) this.waiting.set((this.tags += 1), onApplied);
    this.engine.queue(onApplied ? { ...gesture, tag: this.tags } : gesture);
  }

  run(seconds: number, block: number): Float32Array {
    const { left } = runEngine(this.engine, seconds, block);
    this.position += left.length;
    for (const { tag, sample } of this.engine.takeApplied() ?? []) this.waiting.get(tag)?.(sample);
    return left;
  }

  get piece(): Piece {
    return useOpenPiece.getState().piece!;
  }
}

const HOLDS = ['stutter', 'backwards', 'tapeStop', 'slowMotion', 'reorder', 'chop', 'cloud'] as const;
const share = (): fc.Arbitrary<number> => fc.double({ min: 0, max: 1, noNaN: true });

/** Anything that hands do in Play. */
const action = fc.oneof(
  fc.record({ kind: fc.constant('hold' as const), on: fc.boolean() }),
  fc.record({ kind: fc.constant('field' as const), x: share(), y: share() }),
  fc.record({ kind: fc.constant('lift' as const) }),
  fc.record({ kind: fc.constant('throw' as const), on: fc.boolean(), grid: fc.constantFrom(0, 0.25, 0.5) }),
  fc.record({
    kind: fc.constant('take' as const),
    strand: fc.integer({ min: 0, max: 3 }),
    grid: fc.constantFrom(0, 0.25),
  }),
  fc.record({ kind: fc.constant('step' as const), direction: fc.constantFrom(1 as const, -1 as const) }),
  fc.record({ kind: fc.constant('letGo' as const) }),
);
type Action = typeof action extends fc.Arbitrary<infer T> ? T : never;

/** The preset after or before the one that the hold has or waits for, on the next sixteenth. */
function stepPreset({ live, piece }: Stage, direction: 1 | -1): void {
  const slot = piece.tracks[0]!.chain[0]!;
  const { presets, params } = effectOf(slot.effect);
  const now = usePlayed.getState().presets.h?.id ?? slot.preset;
  const at = presets.findIndex(({ id }) => id === now);
  const next = presets[(at + direction + presets.length) % presets.length]!;
  live.takePreset(hold, { ...next, values: { ...initialValues(params), ...next.values }, own: false }, 0.25);
}

function act(stage: Stage, one: Action): void {
  const { live, piece } = stage;
  const field = piece.fields![0]!;
  switch (one.kind) {
    case 'hold':
      if (one.on) live.begin(hold, true);
      else live.end(hold);
      return;
    case 'field':
      for (const place of positionsAt(piece, field, one)) live.moveTo(place);
      return;
    case 'lift':
      for (const { target } of positionsAt(piece, field, { x: 0, y: 0 })) live.end(target);
      return;
    case 'throw':
      if (one.on) live.begin(send, 1, one.grid);
      else live.end(send, one.grid);
      return;
    case 'take':
      if (one.strand > 0) live.begin(taken, one.strand, one.grid);
      else live.end(taken, one.grid);
      return;
    case 'step':
      stepPreset(stage, one.direction);
      return;
    case 'letGo':
      live.letGoOfAll();
  }
}

test('what hands play live, recorded, plays back to the bit: holds, a field, throws on a grid, presets stepped, strands taken', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...HOLDS),
      fc.constantFrom('free', '1/4', '1 bar'),
      fc.integer({ min: 61, max: 187 }),
      fc.integer({ min: 40, max: 900 }),
      fc.array(fc.tuple(action, fc.double({ min: 0.01, max: 0.4, noNaN: true })), { minLength: 6, maxLength: 22 }),
      (hold, endsOn, bpm, block, hands) => {
        const stage = new Stage(sceneToPlay(bpm, hold, [braid], endsOn), true);
        const heard: Float32Array[] = [stage.run(0.9, block)];
        for (const [one, seconds] of hands) {
          act(stage, one);
          heard.push(stage.run(seconds, block));
        }
        stage.live.stop();
        // What waits for a line has come by then.
        heard.push(stage.run(1.2, block));
        stage.recorder.stop();
        const live = Float32Array.from(heard.flatMap((part) => [...part]));
        const again = engineOf({ ...sceneToPlay(bpm, hold), piece: stage.piece });
        again.play(0);
        expect(awayFrom(live, runEngine(again, live.length / RATE, 128).left.subarray(0, live.length))).toBe(0);
      },
    ),
    { numRuns: 24 },
  );
});

test('let go of all ends a hold within a step, whatever its grid, and what was thrown', () => {
  const made = sceneToPlay(120, 'stutter');
  const [track] = made.piece.tracks;
  const held = newSlot('h', 'stutter', 'neutral', { endsOn: '4 bars', slice: 100, fadeOut: 0 });
  const piece = { ...made.piece, tracks: [{ ...track!, chain: [held, ...track!.chain.slice(1)] }] };
  const after = (hands: (live: LivePlay) => void): Float32Array => {
    const stage = new Stage({ ...made, piece }, false);
    stage.run(1, 128);
    hands(stage.live);
    stage.run(0.5, 128);
    stage.live.letGoOfAll();
    stage.run(0.002, 64);
    expect(usePlayed.getState().now).toEqual({});
    return stage.run(0.2, 64);
  };
  const untouched = after(() => undefined);
  expect(
    awayFrom(
      after((live) => live.begin(hold, true)),
      untouched,
    ),
  ).toBeLessThan(1e-6);
  after((live) => live.begin(send, 1));
});

test('let go of all reaches what waits for its line: a throw that has not begun, and one that has not ended', () => {
  const heard = (hands: (stage: Stage) => void): Float32Array => {
    const stage = new Stage(sceneToPlay(120, 'stutter'), false);
    stage.run(1.1, 128);
    hands(stage);
    stage.live.letGoOfAll();
    expect(usePlayed.getState().now).toEqual({});
    return stage.run(2, 128);
  };
  const untouched = heard(() => undefined);
  expect(
    awayFrom(
      heard(({ live }) => live.begin(send, 1, 4)),
      untouched,
    ),
  ).toBe(0);
  const early = (stage: Stage): void => {
    stage.live.begin(send, 1, 4);
    stage.live.end(send, 4);
  };
  expect(awayFrom(heard(early), untouched)).toBe(0);
  // The same hands without letting go are heard.
  const stage = new Stage(sceneToPlay(120, 'stutter'), false);
  stage.run(1.1, 128);
  early(stage);
  expect(awayFrom(stage.run(2, 128), untouched)).toBeGreaterThan(0.01);
});

/** The parameters of the hold were set last to what the piece has. */
function expectPieceInEngine({ piece, held }: Stage): void {
  const { effect, values } = piece.tracks[0]!.chain[0]!;
  const { params, paramIds } = effectOf(effect);
  for (const [index, number] of held) {
    const id = paramIds[index]!;
    if (id !== 'held') expect([id, number]).toEqual([id, toEngineNumber(params[id]!, values[id]!, contextOf(piece))]);
  }
  expect(held.size).toBeGreaterThan(4);
}

test('a step and a step back before the line leave the engine as the piece is', () => {
  const stage = new Stage(sceneToPlay(120, 'stutter'), false);
  stage.run(0.55, 128);
  stepPreset(stage, 1);
  stepPreset(stage, -1);
  stage.run(0.5, 128);
  expect(stage.piece.tracks[0]!.chain[0]!.preset).toBe('neutral');
  expectPieceInEngine(stage);
});

test('stepping presets while it is not recorded becomes one edit, and the engine follows the piece again', () => {
  const stage = new Stage(sceneToPlay(120, 'stutter'), false);
  stage.run(0.5, 128);
  stage.live.begin(hold, true);
  stage.run(0.2, 128);
  stepPreset(stage, 1);
  stepPreset(stage, 1);
  expect(usePlayed.getState().presets.h?.id).toBe(effectOf('stutter').presets[2]!.id);
  stage.run(0.5, 128);
  expect(stage.piece.tracks[0]!.chain[0]!.preset).toBe(effectOf('stutter').presets[2]!.id);
  expect(useOpenPiece.getState().entries).toHaveLength(1);
  expect(usePlayed.getState().presets).toEqual({});
  expectPieceInEngine(stage);
});

test('a preset that waits for its line when playing stops is taken all the same', () => {
  const stage = new Stage(sceneToPlay(61, 'stutter'), false);
  stage.run(0.5, 128);
  stage.live.begin(hold, true);
  stepPreset(stage, 1);
  stage.live.end(hold);
  stage.live.stop();
  expect(stage.piece.tracks[0]!.chain[0]!.preset).toBe(effectOf('stutter').presets[1]!.id);
  expect(useOpenPiece.getState().entries).toHaveLength(1);
  stage.run(0.5, 128);
  expectPieceInEngine(stage);
});

test('a preset of one’s own is taken as one edit and leaves the effect without a preset of its kind', () => {
  const stage = new Stage(sceneToPlay(120, 'stutter'), false);
  stage.run(0.5, 128);
  const own = { id: 'b', name: 'Mine', purpose: '', values: { slice: 70, decay: 0.3, held: true }, own: true };
  stage.live.takePreset(hold, own, 0.25);
  stage.run(0.3, 128);
  const slot = stage.piece.tracks[0]!.chain[0]!;
  expect([slot.preset, slot.values.slice, slot.values.decay, slot.values.held]).toEqual([null, 70, 0.3, false]);
  expect(useOpenPiece.getState().entries.map(({ label }) => label)).toEqual(['Stutter: preset Mine']);
});

describe('a parameter that is played again before what waits for it has come', () => {
  test('a free hand takes the place of one that waits, and nothing begins after its end', () => {
    const stage = new Stage(sceneToPlay(61, 'stutter'), true);
    stage.run(0.9, 40);
    stage.live.begin(send, 1, 0.5);
    stage.run(0.01, 40);
    stage.live.begin(send, 1);
    stage.run(0.01, 40);
    stage.live.end(send);
    stage.run(1.5, 40);
    const [lane] = stage.piece.lanes;
    expect(lane!.points.filter(({ value }) => value > 0.5).every(({ beat }) => beat < 1)).toBe(true);
  });

  test('one that comes back before its line has ended it holds on', () => {
    const heard = (hands: (live: LivePlay) => void): Float32Array => {
      const stage = new Stage(sceneToPlay(120, 'stutter'), false);
      stage.run(1, 128);
      stage.live.begin(send, 1);
      stage.run(0.1, 128);
      hands(stage.live);
      return stage.run(1.5, 128);
    };
    const comesBack = (live: LivePlay): void => {
      live.end(send, 1);
      live.begin(send, 1);
    };
    expect(
      awayFrom(
        heard(comesBack),
        heard(() => undefined),
      ),
    ).toBe(0);
    expect(
      awayFrom(
        heard((live) => live.end(send, 1)),
        heard(() => undefined),
      ),
    ).toBeGreaterThan(0.01);
  });

  test('a field that glides back does not return to the position that waited for a line', () => {
    const heard = (line: number | null): Float32Array => {
      const stage = new Stage(sceneToPlay(120, 'stutter'), false);
      stage.run(1.01, 128);
      const field = stage.piece.fields![0]!;
      const to = (x: number, atBeat = 0): void => {
        for (const position of positionsAt(stage.piece, field, { x, y: 0.5 })) stage.live.moveTo(position, atBeat);
      };
      to(0.9);
      if (line !== null) to(0.1, line);
      to(0.7);
      return stage.run(1, 128);
    };
    expect(awayFrom(heard(2.5), heard(null))).toBe(0);
  });

  test('a position of a field that waits for its line does not come after the hand has gone', () => {
    const heard = (hands: (live: LivePlay, piece: Piece) => void): Float32Array => {
      const stage = new Stage(sceneToPlay(120, 'stutter'), false);
      stage.run(1.01, 128);
      hands(stage.live, stage.piece);
      return stage.run(1, 128);
    };
    const early = (live: LivePlay, piece: Piece): void => {
      const positions = positionsAt(piece, piece.fields![0]!, { x: 0.1, y: 0.9 });
      for (const position of positions) live.moveTo(position, 2.5);
      for (const { target } of positions) live.end(target);
    };
    expect(
      awayFrom(
        heard(early),
        heard(() => undefined),
      ),
    ).toBe(0);
  });
});
