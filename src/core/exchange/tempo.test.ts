import { clipOf, RATE, scene, soundOf, type Scene } from '../piece/testing';
import fc from 'fast-check';
import { between, roughness } from '../testing';
import { parseMidi } from 'midi-file';
import { engineOf, runEngine } from '../engine/testing';
import { beatsFrom, beatsToSamples, placeBeat, placeSeconds, samplesToBeats } from '../music/tempo';
import { writeMovesMidi } from './movesMidi';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Piece } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';
import { compilePlan } from '../engine/compilePlan';
import { render } from '../engine/render';
import type { Point } from '../automation/point';
import { tempoChange } from '../piece/moves/tempoLane';

const lane = (points: readonly Point[]): Lane => ({
  id: 'tempo',
  target: { kind: 'tempo' },
  unit: 'own',
  on: true,
  points: [...points],
});
const point = (beat: number, value: number, shape: Point['shape'] = 'line'): Point => ({ beat, value, shape, bend: 0 });
const click = soundOf(0.01, (i) => (i === 0 ? 0.5 : 0));
const moved = (points: readonly Point[], more: Partial<Piece['tracks'][number]> = {}, waves = [click]): Scene =>
  scene(waves, [{ clips: [clipOf('a', 0, 0, 0.01)], ...more }], { lanes: [lane(points)] });

describe('a tempo that moves', () => {
  test('a step and a ramp put beats where theory has them', () => {
    const { piece } = moved([point(0, 120, 'hold'), point(4, 60)]);
    expect(beatsToSamples(4, tempoOf(piece), RATE)).toBe(2 * RATE);
    expect(beatsToSamples(6, tempoOf(piece), RATE)).toBe(4 * RATE);
    // Beats a minute on a straight line over beats: seconds are 60 B ln(b/a) / (b - a).
    const ramp = tempoOf(moved([point(0, 60), point(16, 180)]).piece);
    for (const beat of [1, 5.3, 12, 16]) {
      const at = 60 + (120 * beat) / 16;
      expect(placeSeconds(beat, ramp)).toBeCloseTo((60 * beat * Math.log(at / 60)) / (at - 60), 3);
    }
    expect(placeSeconds(20, ramp) - placeSeconds(16, ramp)).toBeCloseTo((4 * 60) / 180, 9);
  });

  test('places go there and come back, whatever the moves', () => {
    const points = fc.uniqueArray(
      fc.record({ beat: between(0, 60), value: between(20, 300), shape: fc.constantFrom('line', 'hold', 'curve') }),
      { minLength: 1, maxLength: 8, selector: ({ beat }) => Math.round(beat * 16) },
    );
    fc.assert(
      fc.property(points, between(0, 100), (made, beat) => {
        const tempo = tempoOf(
          moved(
            made
              .sort((a, b) => a.beat - b.beat)
              .map(({ beat: at, value, shape }) => point(at, value, shape as Point['shape'])),
          ).piece,
        );
        expect(placeBeat(placeSeconds(beat, tempo), tempo)).toBeCloseTo(beat, 7);
        expect(beatsFrom(beat, 1, tempo)).toBeCloseTo(placeBeat(placeSeconds(beat, tempo) + 1, tempo) - beat, 7);
        expect(Math.abs(samplesToBeats(beatsToSamples(beat, tempo, RATE), tempo, RATE) - beat)).toBeLessThan(
          300 / 60 / RATE,
        );
      }),
    );
  });

  test('a change from a place on leaves all before it as it was', () => {
    const { piece } = moved([point(0, 120, 'hold')]);
    const before = [point(0, 100), point(8, 140, 'hold'), point(20, 90, 'hold')];
    const changed = tempoChange(piece, before, 4, 4, 60);
    const [was, is] = [before, changed].map((points) => tempoOf(moved(points).piece));
    expect(placeSeconds(4, is!)).toBeCloseTo(placeSeconds(4, was!), 9);
    expect(changed.map(({ beat, value }) => [beat, value])).toEqual([
      [0, 100],
      [4, expect.closeTo(120, 9)],
      [8, 60],
      [20, 90],
    ]);
    expect(tempoChange(piece, [], 8, 0, 60)).toEqual([point(0, 120, 'hold'), point(8, 60, 'hold')]);
  });

  test('clips keep their beats and a dotted eighth stays one: its repeats are that long wherever they fall', () => {
    const chain = [newSlot('e', 'echo', 'neutral', { timeL: '1/8', feedback: 0, balance: 'levels', dry: 1, wet: 0.5 })];
    const { piece, sounds } = moved([point(0, 120, 'hold'), point(4, 60, 'hold')], {
      chain,
      clips: [clipOf('a', 0, 0, 0.01), clipOf('b', 0, 6, 0.01)],
    });
    const { left } = render({
      plan: compilePlan(piece),
      sounds,
      fromSample: 0,
      toSample: 6 * RATE,
      tail: { kind: 'seconds', seconds: 0 },
    })!;
    const places = [...left].flatMap((x, i) => (Math.abs(x) > 0.1 ? [i] : []));
    expect(places).toEqual([0, 0.25 * RATE, 4 * RATE, 4.5 * RATE]);
  });

  test('an LFO and a lane follow the beat, and starting in the middle sounds as if played from the start', () => {
    const sine = soundOf(20, (i) => 0.4 * Math.sin((2 * Math.PI * 220 * i) / RATE));
    const chain = [
      newSlot('t', 'tremolo', 'neutral', { rate: '1/4', depth: 1, balance: 'levels', dry: 0, wet: 1 }),
      newSlot('e', 'echo', 'neutral', {
        timeL: '1/4',
        feedback: 0,
        timeChange: 'crossfade',
        balance: 'levels',
        dry: 1,
        wet: 0.4,
      }),
    ];
    const made = moved([point(0, 60), point(16, 180)], { chain, clips: [clipOf('a', 0, 0, 20)], gain: 0.5 }, [sine]);
    const ridden: Lane = {
      id: 'pan',
      target: { kind: 'channel', channel: 't0', param: 'pan' },
      unit: 'own',
      on: true,
      points: [point(0, -1), point(16, 1)],
    };
    const both = { ...made, piece: { ...made.piece, lanes: [...made.piece.lanes, ridden] } };
    const play = (fromSeconds: number, seconds: number): Float32Array => {
      const engine = engineOf(both);
      engine.play(fromSeconds * RATE);
      return runEngine(engine, seconds).left;
    };
    const [whole, late] = [play(0, 6), play(2, 4)];
    let away = 0;
    for (let i = 2.5 * RATE; i < 4 * RATE; i += 1) away = Math.max(away, Math.abs(late[i]! - whole[i + 2 * RATE]!));
    expect(away).toBeLessThan(0.01);
    expect(roughness(whole)).toBeLessThan(0.05);
  });

  test('a MIDI file carries the tempo map', () => {
    const { piece } = moved([point(0, 120, 'hold'), point(4, 60), point(8, 120, 'hold')]);
    const events = parseMidi(writeMovesMidi(piece, piece.lanes, 14)).tracks[0]!;
    let tick = 0;
    const tempos = events.flatMap((event) => {
      tick += event.deltaTime;
      return event.type === 'setTempo' ? [[tick / 960, Math.round(60e6 / event.microsecondsPerBeat)]] : [];
    });
    expect(tempos[0]).toEqual([0, 120]);
    expect(tempos[1]![0]).toBe(4);
    expect(tempos[tempos.length - 1]).toEqual([8, 120]);
  });
});
