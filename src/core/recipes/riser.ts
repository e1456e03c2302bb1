import { jumpRest } from '../dsp/jumpRest';
import { makeRandom } from '../dsp/random';
import type { Point } from '../moves/point';
import { placeSeconds } from '../music/tempo';
import { newSlot } from '../piece/edits/chain';
import type { Lane, Piece, Slot, Track } from '../piece/piece';
import { tempoOf } from '../piece/tempoOf';

export interface RiserSettings {
  /** Up into the end of the stretch, or down from its beginning. */
  readonly way: 'rise' | 'fall';
  readonly source: 'noise' | 'tone';
  /** Where the filter stands at the quiet end and at the full end. */
  readonly lowHz: number;
  readonly highHz: number;
  /** Level at the full end, as a gain. */
  readonly level: number;
  /** Opens and shuts, quicker and quicker towards the full end. */
  readonly gate: boolean;
  /** A space that grows with it, and rings on past its end. */
  readonly space: boolean;
  /** Chooses among all noises. */
  readonly roll: number;
}

/** A tone goes over so many octaves, ending here. */
const TONE_OCTAVES = 2;
const TONE_TOP_HZ = 440;
/** Two voices a little apart make it wide. */
const DETUNE = 1.004;
/** The beginning and the end of the sound, so that a cut never clicks. */
const EDGE_SECONDS = 0.003;

const stretchSeconds = (piece: Piece, start: number, end: number): number => placeSeconds(end, tempoOf(piece)) - placeSeconds(start, tempoOf(piece));

/** The bare sound of a riser, at full level all through; what builds is moves. @returns two channels, unlike each other */
export function riserSound(piece: Piece, range: { readonly start: number; readonly end: number }, settings: RiserSettings): Float32Array[] {
  const length = Math.round(stretchSeconds(piece, range.start, range.end) * piece.sampleRate);
  const sides = settings.source === 'noise' ? [noise(length, settings.roll), noise(length, settings.roll ^ 0x5bd1e995)] : [tone(length, piece.sampleRate, 1, settings.way), tone(length, piece.sampleRate, DETUNE, settings.way)];
  const edge = Math.round(EDGE_SECONDS * piece.sampleRate);
  return sides.map((side) => side.map((x, i) => x * Math.min(1, i / edge, (length - 1 - i) / edge)));
}

/** White, at -12 dB of its peak on average. */
function noise(length: number, roll: number): Float32Array {
  const random = makeRandom(roll);
  return Float32Array.from({ length }, () => 0.43 * (2 * random() - 1));
}

/** A saw that slides over its octaves, its jumps rounded. */
function tone(length: number, sampleRate: number, detune: number, way: RiserSettings['way']): Float32Array {
  const out = new Float32Array(length);
  let phase = 0;
  for (let i = 0; i < length; i += 1) {
    const share = way === 'rise' ? i / length : 1 - i / length;
    const step = (TONE_TOP_HZ * detune * Math.pow(2, TONE_OCTAVES * (share - 1))) / sampleRate;
    out[i] = 0.35 * (2 * phase - 1 - jumpRest(phase, step));
    phase += step;
    if (phase >= 1) phase -= 1;
  }
  return out;
}

export interface RiserIds {
  readonly track: string;
  /** Of clip, effects and lanes: a number is put after it. */
  readonly parts: string;
}

/** The track of a riser: its clip, its effects, and the moves that make it build; all of it to be changed by hand afterwards. */
export function riserTrack(piece: Piece, range: { readonly start: number; readonly end: number }, settings: RiserSettings, sound: string, name: string, { track: id, parts }: RiserIds): { readonly track: Track; readonly lanes: readonly Lane[] } {
  const { start, end } = range;
  const rises = settings.way === 'rise';
  const chain: Slot[] = [newSlot(`${parts}-1`, 'filter', 'neutral', { kind: 'low', slope: '24', cutoff: settings.highHz, resonance: 0.25 })];
  const bars = Math.max(1, Math.round((end - start) / piece.tempo.beatsPerBar));
  if (settings.space) chain.push(newSlot(`${parts}-2`, 'reverb', 'neutral', { space: 'hall', decay: Math.min(8000, 1200 * bars), balance: 'mix', mix: 0.1 }));
  const clip = { id: `${parts}-3`, name, sound, start, offsetSeconds: 0, lengthSeconds: stretchSeconds(piece, start, end), gain: 1, fadeInSeconds: 0, fadeOutSeconds: 0, print: null };
  const lane = (number: number, effect: string | null, param: string, points: Point[]): Lane => ({ id: `${parts}-${number}`, target: { channel: id, effect, param }, unit: 'own', on: true, points });
  // From the quiet end to the full one; a fall is the same the other way round.
  const way = (quiet: number, full: number): Point[] => [{ beat: start, value: rises ? quiet : full, shape: 'line', bend: 0 }, { beat: end, value: rises ? full : quiet, shape: 'line', bend: 0 }];
  return {
    track: { id, name, gain: settings.level, pan: 0, mute: false, solo: false, sends: [], chain, clips: [clip] },
    lanes: [
      lane(4, `${parts}-1`, 'cutoff', way(settings.lowHz, settings.highHz)),
      lane(5, null, 'gain', settings.gate ? gated(piece, range, settings) : way(0, settings.level)),
      ...(settings.space ? [lane(6, `${parts}-2`, 'mix', way(0.05, 0.5))] : []),
    ],
  };
}

/** Notes in beats by which a gate opens, from the quiet end to the full one: each for a quarter of the stretch. */
const GATE_BEATS: readonly number[] = [1, 0.5, 0.25, 0.125];

/** Held steps, open for half of each note, as loud as the riser stands there. */
function gated(piece: Piece, { start, end }: { readonly start: number; readonly end: number }, { way, level }: RiserSettings): Point[] {
  const points: Point[] = [];
  const length = end - start;
  const put = (beat: number, value: number): void => void points.push({ beat, value, shape: 'hold', bend: 0 });
  let beat = start;
  while (beat < end - 1e-9) {
    const share = (beat - start) / length;
    const grown = way === 'rise' ? share : 1 - share;
    const note = Math.min(GATE_BEATS[Math.min(GATE_BEATS.length - 1, Math.floor(grown * GATE_BEATS.length * (1 - 1e-9)))]!, end - beat);
    put(beat, level * (0.15 + 0.85 * grown));
    put(beat + note / 2, 0);
    beat += note;
  }
  put(end, way === 'rise' ? level : 0);
  return points;
}
