import fc from 'fast-check';
import { STEP_FRAMES, type StereoBlock } from '../core/dsp/blocks';
import { makeMeterMemory, MAX_CHANNELS, MAX_SLOTS, MAX_TURNS, MeterReader, MeterWriter } from './meterMemory';
import { makeScopeMemory, ScopeReader, ScopeWriter } from './scopeMemory';

describe('meters', () => {
  const both = (): { writer: MeterWriter; reader: MeterReader } => {
    const memory = makeMeterMemory();
    return { writer: new MeterWriter(memory), reader: new MeterReader(memory) };
  };

  test('before anything was written nothing plays, nothing is held down, and no run is in a step', () => {
    const { writer, reader } = both();
    expect(reader.read()).toMatchObject({ playing: false, position: 0, limiterGain: 1, guardGain: 1, load: 0 });
    expect([
      reader.runStep(-1),
      reader.turn(-1),
      reader.slotPeak(-1, 0),
      reader.slotActivity(-1),
      reader.slotLag(-1),
    ]).toEqual([-1, 0, 0, 0, 0]);
    writer.runStep(0, -1);
    expect(reader.runStep(0)).toBe(-1);
  });

  test('what the audio thread writes the page reads, and a block is counted for each', () => {
    const { writer, reader } = both();
    writer.state(true, 4800, 1.25, true, 0.5, 0.75, 3, -6);
    writer.work(0.2, 4);
    expect(reader.read()).toEqual({
      playing: true,
      position: 4800,
      origin: 1.25,
      turned: true,
      load: 0.2,
      late: 4,
      limiterGain: 0.5,
      guardGain: 0.75,
      caught: 3,
      matchDb: -6,
    });
    writer.state(false, 4928, 1.25, false, 1, 1, 3, -6);
    expect([reader.read().playing, reader.blocks]).toEqual([false, 2]);
  });

  test('every place of every kind is its own', () => {
    const { writer, reader } = both();
    const channels = [0, 1, 17, MAX_CHANNELS - 1];
    const slots = [0, 1, 999, MAX_SLOTS - 1];
    const turns = [0, 1, MAX_TURNS - 1];
    channels.forEach((at, i) => {
      writer.channel(at, 0.1 + i, 0.2 + i, 0.3 + i, 0.4 + i, 0);
      writer.image(at, i / 10, -i);
    });
    slots.forEach((at, i) => writer.slot(at, 0.5 + i, 0.6 + i, 100 + i, 200 + i, 0));
    turns.forEach((at, i) => {
      writer.turn(at, 0.7 + i);
      writer.runStep(at, 20 + i);
    });
    writer.state(true, 1, 2, false, 0.3, 0.4, 5, 6);
    channels.forEach((at, i) => {
      expect(([0, 1, 2, 3] as const).map((which) => reader.peak(at, which))).toEqual([
        0.1 + i,
        0.2 + i,
        0.3 + i,
        0.4 + i,
      ]);
      expect([reader.correlation(at), reader.monoDb(at)]).toEqual([i / 10, -i]);
    });
    slots.forEach((at, i) =>
      expect([reader.slotPeak(at, 0), reader.slotPeak(at, 1), reader.slotActivity(at), reader.slotLag(at)]).toEqual([
        0.5 + i,
        0.6 + i,
        100 + i,
        200 + i,
      ]),
    );
    turns.forEach((at, i) => expect([reader.turn(at), reader.runStep(at)]).toEqual([0.7 + i, 20 + i]));
  });

  test('what is past the last place is left out and disturbs nothing', () => {
    const { writer, reader } = both();
    writer.slot(MAX_SLOTS, 9, 9, 9, 9, 0);
    writer.turn(MAX_TURNS, 9);
    writer.runStep(MAX_TURNS, 9);
    expect([reader.slotPeak(MAX_SLOTS, 0), reader.turn(MAX_TURNS), reader.turn(0), reader.runStep(0)]).toEqual([
      0, 0, 0, 0,
    ]);
  });

  test('a peak is held, falls by its share, and rises at once', () => {
    const { writer, reader } = both();
    const seen = [1, 0, 0, 0.9, 0.1].map((level) => {
      writer.channel(0, level, 0, 0, 0, 0.5);
      return reader.peak(0, 0);
    });
    expect(seen).toEqual([1, 0.5, 0.25, 0.9, 0.45]);
  });
});

describe('the sound of one channel', () => {
  const step = (from: number) => {
    const of = (offset: number): Float64Array =>
      Float64Array.from({ length: STEP_FRAMES }, (_, i) => from + i + offset);
    const block = (left: number, right: number): StereoBlock => ({ left: of(left), right: of(right), at: -1 });
    return [block(0, 0.25), block(0.5, 0.75)] as const;
  };

  test('is read once, whole and in order, however seldom it is looked for', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 12 }), (steps) => {
        const memory = makeScopeMemory();
        const [writer, reader] = [new ScopeWriter(memory), new ScopeReader(memory)];
        let [written, read] = [0, 0];
        for (const count of steps) {
          for (let i = 0; i < count; i += 1) {
            writer.heard(...step(written % 8192));
            written += STEP_FRAMES;
          }
          let wrong = 0;
          const frames = reader.read(([left, right, wetLeft, wetRight], came) => {
            for (let i = 0; i < came; i += STEP_FRAMES) {
              const from = (read + i) % 8192;
              const last = from + STEP_FRAMES - 1;
              if (left[i] !== from || right[i] !== from + 0.25) wrong += 1;
              if (wetLeft[i + STEP_FRAMES - 1] !== last + 0.5 || wetRight[i] !== from + 0.75) wrong += 1;
            }
          });
          read += frames;
          expect([frames, wrong]).toEqual([count * STEP_FRAMES, 0]);
        }
      }),
      { numRuns: 20 },
    );
  });

  test('is not given where nothing came', () => {
    const take = jest.fn();
    expect(new ScopeReader(makeScopeMemory()).read(take)).toBe(0);
    expect(take).not.toHaveBeenCalled();
  });
});
