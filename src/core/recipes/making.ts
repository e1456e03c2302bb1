import { STEP_FRAMES } from '../dsp/blocks';
import { planPrint } from '../engine/print';
import { Noise } from '../dsp/noise';
import { polyBlepResidual } from '../dsp/polyBlepResidual';
import { FilterCascade } from '../dsp/filterCascade';
import { choice, figure, frequency, gain, ratio, toggle } from '../params/make';
import { beatAt, clipsIn, sampleAt, secondsOf, type Recipe } from './recipe';
import { plainClip, plainTrack } from '../piece/plain';
import { seamless } from './seamless';
import { barsLater } from '../music/grid';
import { tempoOf } from '../piece/tempoOf';

/** A seamless loop of any moment, sustained over what follows. */
export const ambientLoop: Recipe = {
  id: 'loop',
  name: 'Loop without a seam',
  purpose: 'The stretch becomes a loop that never shows where it begins, laid out for as long as you want.',
  searchWords: 'texture drone ambient',
  params: {
    overlap: ratio({
      label: 'Overlap',
      group: 'Loop',
      hint: 'Share of the stretch in which its end melts into its beginning: more for pads, less for rhythms.',
      min: 0.02,
      max: 0.5,
      initial: 0.3,
    }),
    bars: figure({
      label: 'For',
      group: 'Loop',
      hint: 'How many bars it lies.',
      unit: 'count',
      min: 1,
      max: 512,
      taper: { kind: 'log' },
      initial: 8,
      notches: [4, 8, 16, 32, 64, 128, 256],
      smoothingSeconds: 0,
    }),
    wholeBeats: toggle({
      label: 'As long as the stretch',
      group: 'Loop',
      hint: 'On, it turns in whole beats, taking what follows the stretch for its seam; off, it turns where the seam is smoothest.',
      initial: false,
    }),
    level: gain({ label: 'Level', group: 'Loop', hint: 'Of the loop.', initial: 0.8 }),
  },
  unavailableReason: (input) => (clipsIn(input).length === 0 ? 'Nothing of this track sounds in the stretch.' : null),
  renderJob: ({ piece, track, range }, { is, number }) => ({
    job: planPrint(piece, {
      channel: track.id,
      clip: null,
      fromBeat: range.start,
      toBeat: range.end + (is('wholeBeats') ? number('overlap') * (range.end - range.start) : 0),
      part: 'mix',
      tailBars: 0,
    }),
    sounds: [],
  }),
  sound: ({ piece, range }, { is, number }, rendered) => {
    const { length } = rendered![0]!;
    const body = sampleAt(piece, range.end) - sampleAt(piece, range.start);
    const channels = is('wholeBeats')
      ? seamless(rendered!, length - body, piece.sampleRate, 0)
      : seamless(rendered!, Math.round(number('overlap') * length), piece.sampleRate);
    return { channels, loop: { first: 0, last: channels[0]!.length - 1 } };
  },
  apply: (input, { number }, sound) => {
    const { piece, track, range, newId } = input;
    const end = barsLater(range.end, Math.round(number('bars')), tempoOf(piece));
    const whole = secondsOf(piece, { start: range.end, end });
    const turns = Math.min(1800, Math.ceil(whole / sound!.seconds - 1e-6));
    // Repetitions, each beginning on the sample at which the one before ends, however the tempo moves.
    const from = sampleAt(piece, range.end);
    const turn = Math.round(sound!.seconds * piece.sampleRate);
    const clips = Array.from({ length: turns }, (_, i) =>
      plainClip(
        newId(),
        `Loop ${i + 1}`,
        sound!.hash,
        beatAt(piece, from + i * turn),
        Math.min(sound!.seconds, whole - i * sound!.seconds),
        {
          fadeInSeconds: i === 0 ? 0.05 : 0,
          fadeOutSeconds: i === turns - 1 ? Math.min(0.05, (whole - i * sound!.seconds) / 2) : 0,
        },
      ),
    );
    return {
      tracks: [
        { ...plainTrack(newId(), `Loop of ${track.name}`, clips, [], track.gain * number('level')), pan: track.pan },
      ],
    };
  },
};

const SOURCES = ['white', 'pink', 'brown', 'band', 'sine', 'saw', 'pulse'] as const;
type Source = (typeof SOURCES)[number];

/** Noise or a tone over a stretch, with an envelope: a beginning for risers and beds. */
export const source: Recipe = {
  id: 'source',
  name: 'Noise or tone',
  purpose: 'A clip of noise or of a gliding tone over the stretch: to be filtered, spaced and ridden.',
  searchWords: 'noise tone generate',
  params: {
    kind: choice({
      label: 'Kind',
      group: 'Source',
      hint: 'White is bright, pink even, brown dark; band is noise round a frequency; or a tone.',
      initial: 'pink',
      options: SOURCES.map((id) => ({ id, label: id })),
    }),
    fromHz: frequency({
      label: 'From',
      group: 'Source',
      hint: 'Where a tone or a band begins.',
      min: 20,
      max: 12_000,
      initial: 110,
    }),
    toHz: frequency({
      label: 'To',
      group: 'Source',
      hint: 'Where it has glided to at the end.',
      min: 20,
      max: 12_000,
      initial: 440,
    }),
    rise: ratio({
      label: 'Comes over',
      group: 'Envelope',
      hint: 'Share of the stretch in which it comes up.',
      initial: 0.9,
    }),
    fall: ratio({
      label: 'Goes over',
      group: 'Envelope',
      hint: 'Share of the stretch in which it goes.',
      initial: 0.02,
    }),
    level: gain({ label: 'Level', group: 'Envelope', hint: 'At its fullest.', initial: 0.5 }),
  },
  unavailableReason: () => null,
  sound: (input, { number, word }) => {
    const { sampleRate } = input.piece;
    const length = Math.max(2, Math.round(secondsOf(input.piece, input.range) * sampleRate));
    return {
      channels: [1, 2].map((side) =>
        sourceSound(word('kind') as Source, length, sampleRate, number('fromHz'), number('toHz'), side),
      ),
    };
  },
  apply: (input, { number, word }, sound) => {
    const { range, newId } = input;
    const rise = Math.max(0.003, number('rise') * sound!.seconds);
    const fall = Math.max(0.003, Math.min(number('fall') * sound!.seconds, sound!.seconds - rise));
    const clip = plainClip(newId(), word('kind'), sound!.hash, range.start, sound!.seconds, {
      gain: number('level'),
      fadeInSeconds: Math.min(rise, sound!.seconds - 0.003),
      fadeInShape: 'soft',
      fadeOutSeconds: Math.max(0.002, fall),
      fadeOutShape: 'soft',
    });
    return { tracks: [plainTrack(newId(), `Source, ${word('kind')}`, [clip])] };
  },
};

/** Highest sample of tones, and about three times the mean of noises. */
const FULL = 0.5;

function sourceSound(
  kind: Source,
  length: number,
  sampleRate: number,
  fromHz: number,
  toHz: number,
  side: number,
): Float32Array {
  const hzAt = (i: number): number => fromHz * Math.pow(toHz / fromHz, i / length);
  if (kind === 'sine' || kind === 'saw' || kind === 'pulse') return tone(kind, length, sampleRate, hzAt);
  const noise = new Noise(0x2f6e2b1 * side);
  noise.restart(side);
  if (kind === 'white') return Float32Array.from({ length }, () => FULL * noise.next());
  if (kind === 'brown') return brown(length, noise, sampleRate);
  if (kind === 'pink') return pink(length, noise);
  return band(length, noise, sampleRate, hzAt);
}

/**
 * White noise through six poles, within 0.05 dB of -3 dB an octave. Source: Paul Kellet, "Filter to make pink noise
 * from white" (2000, public domain).
 */
function pink(length: number, noise: Noise): Float32Array {
  const poles = [0.99886, 0.99332, 0.969, 0.8665, 0.55, -0.7616];
  const gains = [0.0555179, 0.0750759, 0.153852, 0.3104856, 0.5329522, -0.016898];
  const states = new Float64Array(6);
  let late = 0;
  return Float32Array.from({ length }, () => {
    const white = noise.next();
    let sum = late + white * 0.5362;
    for (let k = 0; k < 6; k += 1) {
      states[k] = poles[k]! * states[k]! + gains[k]! * white;
      sum += states[k]!;
    }
    late = white * 0.115926;
    return FULL * 0.12 * sum;
  });
}

/** Integrated white noise, with a leak against drift. */
function brown(length: number, noise: Noise, sampleRate: number): Float32Array {
  const leak = 1 - (2 * Math.PI * 12) / sampleRate;
  let state = 0;
  return Float32Array.from({ length }, () => {
    state = leak * state + 0.045 * noise.next();
    return FULL * state;
  });
}

/** White noise through a band of an octave that glides. */
function band(length: number, noise: Noise, sampleRate: number, hzAt: (i: number) => number): Float32Array {
  const row = new FilterCascade(1);
  const block = { left: new Float64Array(STEP_FRAMES), right: new Float64Array(STEP_FRAMES) };
  const out = new Float32Array(length);
  for (let at = 0; at < length; at += STEP_FRAMES) {
    for (let i = 0; i < STEP_FRAMES; i += 1) block.left[i] = noise.next();
    row.aim(0, Math.tan((Math.PI * Math.min(hzAt(at), 0.4 * sampleRate)) / sampleRate), 0.7, 0, 0.7, 0);
    row.process(block);
    for (let i = 0; i < STEP_FRAMES && at + i < length; i += 1)
      out[at + i] = FULL * Math.min(8, Math.sqrt(sampleRate / (3 * hzAt(at)))) * 0.5 * block.left[i]!;
  }
  return out;
}

/** A gliding tone, its jumps rounded. */
function tone(
  kind: 'sine' | 'saw' | 'pulse',
  length: number,
  sampleRate: number,
  hzAt: (i: number) => number,
): Float32Array {
  let phase = 0;
  const saw = (at: number, step: number): number => 2 * at - 1 - polyBlepResidual(at, step);
  return Float32Array.from({ length }, (_, i) => {
    const step = hzAt(i) / sampleRate;
    const now = phase;
    phase += step;
    phase -= Math.floor(phase);
    if (kind === 'sine') return FULL * Math.sin(2 * Math.PI * now);
    if (kind === 'saw') return FULL * saw(now, step);
    const half = now + 0.5 - Math.floor(now + 0.5);
    return FULL * 0.5 * (saw(now, step) - saw(half, step));
  });
}
