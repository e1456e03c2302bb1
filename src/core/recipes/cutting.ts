import { TREATED_SOUND, treatmentPiece } from '../engine/treatment';
import { compilePlan } from '../engine/compilePlan';
import { planPrint } from '../engine/print';
import { barStart, toBarBeat } from '../music/grid';
import { metreAt } from '../music/metre';
import { tempoOf } from '../piece/tempoOf';
import { choice, figure, frequency, gain, ratio, time, toggle } from '../params/make';
import { newSlot } from '../piece/edits/chain';
import type { Hit } from '../piece/moves/throws';
import type { Clip } from '../piece/piece';
import { hitSources, takeHit } from './reverseSwell';
import {
  beatAt,
  clipsIn,
  clearRange,
  sampleAt,
  trackLike,
  secondsOf,
  type Recipe,
  type RecipeInput,
  type RecipeRenderJob,
} from './recipe';
import { plainClip, plainTrack } from '../piece/plain';

const NOTHING_THERE = 'No clip of this track lies in the stretch.';

/** The stretch of the track as its clips play it, without its effects. */
const withoutEffects = ({ piece, track, range }: RecipeInput): RecipeRenderJob => ({
  job: planPrint(piece, {
    channel: track.id,
    clip: null,
    fromBeat: range.start,
    toBeat: range.end,
    part: 'dry',
    tailBars: 0,
  }),
  sounds: [],
});

/** Repeats the first slice of the range faster and faster, as clips of their own. */
export const stutter: Recipe = {
  id: 'stutter',
  name: 'Stutter',
  purpose: 'The first slice of the stretch again and again, speeding up to its end.',
  searchWords: 'repeat glitch roll',
  params: {
    first: time({
      label: 'First slice',
      group: 'Slices',
      hint: 'How long the slice is at first.',
      min: 30,
      max: 2000,
      initial: '1/4',
      smoothingSeconds: 0,
    }),
    last: time({
      label: 'Last slice',
      group: 'Slices',
      hint: 'How short it has become at the end.',
      min: 8,
      max: 1000,
      initial: '1/32',
      smoothingSeconds: 0,
    }),
    fall: figure({
      label: 'Level at the end',
      group: 'Slices',
      hint: 'Sinks or swells over the stretch.',
      unit: 'db',
      min: -24,
      max: 6,
      initial: 0,
      notches: [0],
    }),
    backwards: toggle({ label: 'Every second backwards', group: 'Slices', hint: 'To and fro.', initial: false }),
  },
  unavailableReason: (input) => (clipsIn(input).length === 0 ? NOTHING_THERE : null),
  renderJob: withoutEffects,
  sound: (input, { number }, rendered) => {
    const n = Math.min(rendered![0]!.length, Math.ceil((number('first') / 1000) * input.piece.sampleRate));
    return { channels: rendered!.map((channel) => channel.slice(0, n)) };
  },
  apply: (input, { number, is }, sound) => {
    const { piece, track, range, newId } = input;
    const whole = secondsOf(piece, range);
    const clips: Clip[] = [];
    let at = 0;
    while (at < whole - 0.004 && clips.length < 1500) {
      const share = at / whole;
      const wanted = (number('first') / 1000) * Math.pow(number('last') / number('first'), share);
      const length = Math.min(wanted, sound!.seconds, whole - at);
      const edge = Math.min(0.003, length / 4);
      clips.push(
        plainClip(
          newId(),
          `Slice ${clips.length + 1}`,
          sound!.hash,
          beatAt(piece, sampleAt(piece, range.start) + Math.round(at * piece.sampleRate)),
          length,
          {
            gain: Math.pow(10, (number('fall') * share) / 20),
            fadeInSeconds: clips.length === 0 ? 0 : edge,
            fadeOutSeconds: edge,
            reversed: is('backwards') && clips.length % 2 === 1,
          },
        ),
      );
      at += wanted;
    }
    return {
      tracks: [trackLike(input, `Stutter of ${track.name}`, clips)],
      clips: [{ track: track.id, clips: clearRange(input) }],
    };
  },
};

/** Slows a range down to a stop, or starts it up, as a tape does. */
export const tapeStop: Recipe = {
  id: 'tapeStop',
  name: 'Tape stop',
  purpose: 'The stretch slows to a stop at its end, or starts up from one.',
  searchWords: 'brake slow down vinyl',
  params: {
    way: choice({
      label: 'Way',
      group: 'Tape',
      hint: 'To a stop, or up from one.',
      initial: 'stop',
      options: [
        { id: 'stop', label: 'stops' },
        { id: 'start', label: 'starts up' },
      ],
    }),
    curve: figure({
      label: 'Curve',
      group: 'Tape',
      hint: 'Evenly, or for long at speed and then quickly down.',
      unit: 'pan',
      ends: ['at once', 'late'],
      min: -1,
      max: 1,
      initial: 0,
      notches: [0],
    }),
  },
  unavailableReason: (input) => (clipsIn(input).length === 0 ? NOTHING_THERE : null),
  renderJob: withoutEffects,
  sound: (_input, { number, word }, rendered) => ({
    channels: rendered!.map((channel) => slowed(channel, word('way') === 'stop', Math.pow(3, number('curve')))),
  }),
  apply: (input, _settings, sound) => {
    const { track, range, newId } = input;
    const clip = plainClip(newId(), 'Tape stop', sound!.hash, range.start, sound!.seconds, {
      fadeOutSeconds: 0.004,
      fadeInSeconds: 0.002,
    });
    return {
      tracks: [trackLike(input, `Tape stop of ${track.name}`, [clip])],
      clips: [{ track: track.id, clips: clearRange(input) }],
    };
  },
};

/**
 * Speed `1 - t^curve` over the length, read by a cubic; the level falls with the last of the speed, as that of a tape
 * head.
 */
function slowed(channel: Float32Array, stops: boolean, curve: number): Float32Array {
  const n = channel.length;
  const places = new Float64Array(n);
  let place = 0;
  for (let i = 0; i < n; i += 1) {
    places[i] = place;
    place += 1 - Math.pow(i / n, curve);
  }
  return Float32Array.from({ length: n }, (_, i) => {
    const k = stops ? i : n - 1 - i;
    // A start is a stop run backwards: it ends at the position where the range would be, at full speed.
    const at = stops ? places[k]! : n - 1 - places[k]!;
    const speed = 1 - Math.pow(k / n, curve);
    return cubicAt(channel, at) * Math.min(1, speed * 8);
  });
}

function cubicAt(samples: Float32Array, at: number): number {
  const k = Math.floor(at);
  const t = at - k;
  const [a, b, c, d] = [samples[k - 1] ?? 0, samples[k] ?? 0, samples[k + 1] ?? 0, samples[k + 2] ?? 0];
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
}

const NOTES = time({
  label: 'Time',
  group: 'Echo',
  hint: 'Between one repeat and the next.',
  min: 40,
  max: 4000,
  initial: '1/8d',
  smoothingSeconds: 0,
});
const FEEDBACK = ratio({
  label: 'Feedback',
  group: 'Echo',
  hint: 'How slowly they die away.',
  max: 0.95,
  initial: 0.6,
});
const DARK = frequency({
  label: 'High cut',
  group: 'Echo',
  hint: 'Each repeat is darker than the one before.',
  min: 600,
  max: 20_000,
  initial: 5000,
});
const LEVEL = gain({ label: 'Level', group: 'Echo', hint: 'Of the first repeat against the hit.', initial: 0.7 });

/** One hit alone through an echo, wet, over so many seconds. */
function echoOf(input: RecipeInput, hit: number, number: (id: string) => number, seconds: number): RecipeRenderJob {
  const { piece, track, hits } = input;
  const source = hitSources(piece, track, hits, [hit], 'chosen')[0]!;
  const taken = takeHit(input.sound(source.sound)!, source, piece.sampleRate);
  const chain = [
    newSlot('echo', 'echo', 'neutral', {
      linked: true,
      timeL: number('time'),
      feedback: number('feedback'),
      filter: 'low',
      cutoff: number('highCut'),
      balance: 'levels',
      dry: 0,
      wet: 1,
    }),
  ];
  const alone = treatmentPiece({
    sound: taken,
    sampleRate: piece.sampleRate,
    bpm: piece.tempo.bpm,
    chain,
    tail: { kind: 'silent' },
    hear: 'mix',
  });
  const toSample = Math.max(taken[0]!.length, Math.round(seconds * piece.sampleRate));
  return {
    job: {
      plan: compilePlan({ ...alone, lengthBeats: 64 }),
      fromSample: 0,
      toSample,
      tail: { kind: 'seconds', seconds: 0 },
      listening: undefined,
    },
    sounds: [{ hash: TREATED_SOUND, channels: taken }],
  };
}

/** A hit is available only with its clip and its sound. */
const hasHitSound = (input: RecipeInput, hit: number): boolean => {
  const source = hit >= 0 ? hitSources(input.piece, input.track, input.hits, [hit], 'chosen')[0] : undefined;
  return source !== undefined && input.sound(source.sound) !== undefined;
};

/** A hit this near the end of the stretch, in beats, is the one that it leads to. */
const NEAR_BEATS = 0.13;
/** How far a hit may be beside a sixteenth to be on the grid. */
const ON_GRID_BEATS = 0.04;
const isOnGrid = ({ beat }: Hit): boolean => Math.abs(beat * 4 - Math.round(beat * 4)) <= 4 * ON_GRID_BEATS;

/** The hit that a stretch leads to: the nearest at its end, else the first after it on the grid; -1 for none. */
function targetHit({ hits, range }: RecipeInput): number {
  const away = (hit: Hit): number => Math.abs(hit.beat - range.end);
  const near = hits.filter((hit) => away(hit) <= NEAR_BEATS);
  const nearest = near.reduce<Hit | undefined>(
    (best, hit) => (best && away(best) <= away(hit) ? best : hit),
    undefined,
  );
  return nearest ? hits.indexOf(nearest) : hits.findIndex((hit) => hit.beat > range.end && isOnGrid(hit));
}

const lastBefore = ({ hits, range }: RecipeInput): number =>
  hits.reduce((last, { beat }, i) => (beat <= range.start + 0.13 ? i : last), -1);

/** "Leads into the hit of Crates at bar 5, beat 1.25." */
function hitGoal({ piece, track, hits }: RecipeInput, index: number, verb: string): string | null {
  const hit = hits[index];
  if (!hit) return null;
  const tempo = tempoOf(piece);
  const { bar } = toBarBeat(hit.beat, tempo);
  const counted = ((hit.beat - barStart(bar, tempo)) * metreAt(hit.beat, tempo).unit) / 4;
  const beat = Math.round((counted + 1) * 100) / 100;
  return `${verb} the hit of ${track.name} at bar ${bar}, beat ${beat}.`;
}

/** Repeats before the hit, from distant to close, on the grid. */
export const reversedEchoes: Recipe = {
  ofHits: true,
  id: 'reversedEchoes',
  name: 'Reversed echoes',
  purpose: 'Repeats that lead up to the hit at the end of the stretch, each on the grid.',
  searchWords: 'reverse swell delay',
  params: { time: NOTES, feedback: FEEDBACK, highCut: DARK, level: LEVEL },
  goal: (input) => hitGoal(input, targetHit(input), 'Leads into'),
  unavailableReason: (input) =>
    hasHitSound(input, targetHit(input))
      ? null
      : 'No hit of this track stands at the end of the stretch. Choose a stretch that ends at a hit.',
  renderJob: (input, { number }) =>
    echoOf(
      input,
      targetHit(input),
      number,
      secondsOf(input.piece, { start: input.range.start, end: input.hits[targetHit(input)]!.beat }),
    ),
  sound: (_input, _settings, rendered) => ({ channels: rendered! }),
  apply: (input, { number }, sound) => {
    const { piece, track, hits, range, newId } = input;
    const hit = sampleAt(piece, hits[targetHit(input)]!.beat);
    const length = Math.min(Math.round(sound!.seconds * piece.sampleRate), hit - sampleAt(piece, range.start));
    const clip = plainClip(
      newId(),
      'Reversed echoes',
      sound!.hash,
      beatAt(piece, hit - length),
      length / piece.sampleRate,
      {
        reversed: true,
        gain: number('level'),
        fadeInSeconds: Math.min(0.02, length / piece.sampleRate / 4),
        fadeOutSeconds: 0.003,
      },
    );
    return {
      tracks: [{ ...plainTrack(newId(), `Echoes into ${track.name}`, [clip], [], track.gain), pan: track.pan }],
    };
  },
};

/** Echoes of the last hit before a gap, faded out by its end. */
export const lastHitEcho: Recipe = {
  ofHits: true,
  id: 'lastHit',
  name: 'Last hit into the gap',
  purpose: 'The hit before the stretch echoes into it, and is gone when the next phrase begins.',
  searchWords: 'throw delay tail echo',
  params: { time: NOTES, feedback: { ...FEEDBACK, initial: 0.72 }, highCut: DARK, level: LEVEL },
  goal: (input) => hitGoal(input, lastBefore(input), 'Echoes'),
  unavailableReason: (input) =>
    hasHitSound(input, lastBefore(input))
      ? null
      : 'No hit of this track stands before the stretch. Choose a stretch that begins after a hit.',
  renderJob: (input, { number }) =>
    echoOf(
      input,
      lastBefore(input),
      number,
      secondsOf(input.piece, { start: input.hits[lastBefore(input)]!.beat, end: input.range.end }),
    ),
  sound: (_input, _settings, rendered) => ({ channels: rendered! }),
  apply: (input, { number }, sound) => {
    const { piece, track, hits, range, newId } = input;
    const start = hits[lastBefore(input)]!.beat;
    const length = Math.min(sound!.seconds, secondsOf(piece, { start, end: range.end }));
    const clip = plainClip(newId(), 'Last hit', sound!.hash, start, length, {
      gain: number('level'),
      fadeOutSeconds: Math.min(0.06, length / 4),
      fadeOutShape: 'soft',
    });
    return {
      tracks: [{ ...plainTrack(newId(), `Last hit of ${track.name}`, [clip], [], track.gain), pan: track.pan }],
    };
  },
};
