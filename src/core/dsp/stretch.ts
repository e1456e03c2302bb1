import { findOnsets } from '../analysis/onsets';
import { PhaseVocoder } from './phaseVocoder';
import { resample } from './resample';

export interface StretchSettings {
  /** New length over old, 0.25 to 4. */
  readonly times: number;
  /** Semitones, -24 to 24. */
  readonly semitones: number;
  /** False lets the pitch follow the length, as with tape; semitones are ignored then. */
  readonly keepPitch: boolean;
  /** Formants are kept, or shifted with the pitch. */
  readonly formants: 'keep' | 'follow';
  /** Shift of the formants in semitones, -12 to 12. */
  readonly formantSemitones: number;
}

/** Seconds of a hit that are copied unchanged; the sound between hits is stretched the more. */
const ATTACK_SECONDS = 0.02;
/** Seconds before a hit at which parts are joined. */
const BEFORE_SECONDS = 0.003;
/** Gain of a rise over the sound just before that counts as a hit. */
const SHARP = 2.2;

/** Samples of a frame: about 40 ms. */
const frameOf = (sampleRate: number): number => (sampleRate > 64_000 ? 4096 : 2048);

/**
 * A sound in another length, pitch, or both; hits are neither doubled nor smeared, each at its time in the new length.
 * A phase vocoder (see PhaseVocoder) whose phases are reset at each hit, with the hit itself copied. Source for the
 * treatment of hits: A. Roebel, "A New Approach to Transient Processing in the Phase Vocoder" (2003).
 * @param channels one or two of equal length
 */
export function stretched(
  channels: readonly Float32Array[],
  sampleRate: number,
  settings: StretchSettings,
): Float32Array[] {
  if (!settings.keepPitch) return channels.map((channel) => resample(channel, sampleRate, sampleRate * settings.times));
  const ratio = Math.pow(2, settings.semitones / 12);
  const throat = Math.pow(2, settings.formantSemitones / 12) * (settings.formants === 'follow' ? ratio : 1);
  if (ratio === 1 && settings.times === 1 && Math.abs(throat - 1) < 1e-6)
    return channels.map((channel) => channel.slice());
  const longer = new Stretcher(channels, sampleRate, settings.times * ratio, throat / ratio, ratio).made();
  const wanted = Math.round(channels[0]!.length * settings.times);
  return longer.map((channel) =>
    exactly(ratio === 1 ? channel : resample(channel, sampleRate * ratio, sampleRate), wanted),
  );
}

function exactly(samples: Float32Array, length: number): Float32Array {
  if (samples.length === length) return samples;
  const out = new Float32Array(length);
  out.set(samples.subarray(0, length));
  return out;
}

/** Stretches a sound to another length at the same pitch. */
class Stretcher {
  private readonly vocoder: PhaseVocoder;
  private readonly frame: number;
  private readonly hop: number;
  private readonly out: readonly Float64Array[];
  private readonly left: Float32Array;
  private readonly right: Float32Array;
  private readonly top: number;

  /**
   * @param times new length over old
   * @param formants ratio by which the envelope is shifted
   * @param faster ratio by which it will be read faster: frequencies that would alias are left out
   */
  constructor(
    private readonly channels: readonly Float32Array[],
    private readonly sampleRate: number,
    private readonly times: number,
    private readonly formants: number,
    faster: number,
  ) {
    this.frame = frameOf(sampleRate);
    this.hop = this.frame / 4;
    this.vocoder = new PhaseVocoder(this.frame, sampleRate);
    this.left = channels[0]!;
    this.right = channels[1] ?? channels[0]!;
    this.out = channels.map(() => new Float64Array(Math.ceil(this.left.length * times) + 2 * this.frame));
    this.top = faster > 1 ? Math.floor((0.98 * this.frame) / (2 * faster)) : this.frame / 2 + 1;
  }

  made(): Float32Array[] {
    const places = [...this.hits(), this.left.length];
    let from = 0;
    for (const to of places) {
      if (to > from) this.part(from, to);
      from = to;
    }
    const length = Math.round(this.left.length * this.times);
    return this.out.map((side) => Float32Array.from(side.subarray(0, length)));
  }

  /** Where parts begin: a little before each hit that is sharp enough. */
  private hits(): number[] {
    const mono = this.channels.length > 1 ? this.left.map((x, i) => 0.5 * (x + this.right[i]!)) : this.left;
    const at = (seconds: number): number => Math.round(seconds * this.sampleRate);
    const level = (from: number, to: number): number => {
      let sum = 1e-12;
      for (let i = Math.max(0, from); i < Math.min(mono.length, to); i += 1) sum += mono[i]! * mono[i]!;
      return Math.sqrt(sum / Math.max(1, to - from));
    };
    return findOnsets(mono, this.sampleRate)
      .map(({ seconds }) => at(seconds))
      .filter((hit) => level(hit, hit + at(0.008)) > SHARP * level(hit - at(0.02), hit - at(0.002)))
      .map((hit) => hit - at(BEFORE_SECONDS))
      .filter((begin) => begin > 0);
  }

  /** New time of a part's beginning, such that the hit after it is at its exact time. */
  private newTimeOf(begin: number): number {
    if (begin === 0 || begin === this.left.length) return Math.round(begin * this.times);
    const before = Math.round(BEFORE_SECONDS * this.sampleRate);
    return Math.max(0, Math.round((begin + before) * this.times) - before);
  }

  /** One part, from its new time to that of the next, with a crossfade of BEFORE_SECONDS. */
  private part(from: number, to: number): void {
    const begin = this.newTimeOf(from);
    const end = this.newTimeOf(to);
    const made = this.stretchPart(from, to, end - begin);
    const fade = from === 0 ? 0 : Math.round(BEFORE_SECONDS * this.sampleRate);
    const over = Math.round(BEFORE_SECONDS * this.sampleRate);
    this.out.forEach((side, c) => {
      const samples = made[c]!;
      const last = Math.min(side.length - begin, end - begin + over);
      for (let i = 0; i < last; i += 1) {
        // The end of the part before fades out as this one fades in.
        if (i < fade) side[begin + i] = side[begin + i]! + (samples[i]! - side[begin + i]!) * ((i + 1) / fade);
        else side[begin + i] = samples[i]!;
      }
    });
  }

  /**
   * A part alone over `length` samples and a frame more: its beginning copied, the rest stretched to the remaining
   * length.
   */
  private stretchPart(from: number, to: number, length: number): Float64Array[] {
    const { frame, hop, vocoder } = this;
    const made = this.channels.map(() => new Float64Array(length + 2 * frame));
    const copied = (from === 0 ? 0 : Math.round(ATTACK_SECONDS * this.sampleRate)) + frame / 2;
    const rest = to - from - copied;
    const room = length - copied;
    // Where either is too short for a frame, it is copied whole and cut, or goes on into its mirror image.
    const rate = rest > hop && room > hop ? rest / room : 1;
    vocoder.clear();
    let taken = -frame + hop;
    let before = taken - hop;
    for (let laid = taken; laid < length + hop; laid += hop) {
      this.read(from, to, Math.round(taken));
      vocoder.processFrame(Math.round(taken) - before, hop, this.formants, this.top);
      before = Math.round(taken);
      const level = vocoder.levelAt(hop);
      made.forEach((side, c) => {
        const frameMade = c === 0 ? vocoder.left.made : vocoder.right.made;
        for (let i = Math.max(0, -laid); i < frame && laid + i < side.length; i += 1)
          side[laid + i] = side[laid + i]! + frameMade[i]! * level;
      });
      taken += taken + frame / 2 < copied ? hop : hop * rate;
    }
    return made;
  }

  /** A frame of the part alone: silence before it, its mirror image after it. */
  private read(from: number, to: number, at: number): void {
    const { left, right, vocoder } = this;
    const length = to - from;
    for (let i = 0; i < this.frame; i += 1) {
      let place = at + i;
      if (place >= length) place = Math.max(0, 2 * length - 2 - place);
      vocoder.left.frame[i] = place < 0 ? 0 : left[from + place]!;
      vocoder.right.frame[i] = place < 0 ? 0 : right[from + place]!;
    }
  }
}
