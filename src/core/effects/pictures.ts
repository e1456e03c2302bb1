import type { Tap } from '../analysis/tapList';

/**
 * What a drag along one axis changes: `add` moves the value by `scale` for each unit of the axis, `times` multiplies it
 * by the ratio of the places.
 */
export interface Pull {
  readonly param: string;
  /** The value now, in the parameter's own unit. */
  readonly value: number;
  readonly by: 'add' | 'times';
  readonly scale: number;
  readonly min: number;
  readonly max: number;
  /** A time, which may fall on a note value. */
  readonly time: boolean;
}

/** A handle of a picture, in the units of its axes. */
export interface Handle {
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly pullX: Pull | null;
  readonly pullY: Pull | null;
  /** Maximum value from which a drag begins, where there is less than is set. */
  readonly most?: number;
}

/** Repeats over time, each with its time, its level on each side and its brightness, measured from the effect. */
export interface RepeatsPicture {
  readonly kind: 'repeats';
  readonly taps: readonly Tap[];
  /** Time of the first repeat as set, in seconds. */
  readonly firstSeconds: number;
  readonly feedback: number;
  /** Length of the picture in seconds. */
  readonly spanSeconds: number;
  /** Seconds and level. */
  readonly handles: readonly Handle[];
}

/** Decay of a space, from its impulse response. Levels in dB under the whole, at `frameSeconds` steps. */
export interface DecayPicture {
  readonly kind: 'decay';
  readonly spanSeconds: number;
  readonly frameSeconds: number;
  readonly low: readonly number[];
  readonly middle: readonly number[];
  readonly high: readonly number[];
  readonly early: readonly Tap[];
  readonly preDelaySeconds: number;
  /** Null where nothing is set, as for an impulse. */
  readonly setSeconds: number | null;
  /** By backward integration at 1 kHz; null when it does not fall far enough within the picture. */
  readonly measuredSeconds: number | null;
  /** Seconds and dB. */
  readonly handles: readonly Handle[];
}

/**
 * An impulse as a wave over time, and what of it is used. Levels in dB under its loudest, of equal stretches of the
 * span.
 */
export interface ImpulsePicture {
  readonly kind: 'impulse';
  /** All of the source. */
  readonly spanSeconds: number;
  readonly left: readonly number[];
  readonly right: readonly number[];
  /** The impulse as it is used: trimmed, faded, its decay scaled; beside its source. */
  readonly usedLeft: readonly number[];
  readonly usedRight: readonly number[];
  readonly fromSeconds: number;
  readonly toSeconds: number;
  /** Where the fade begins. */
  readonly fadeSeconds: number;
  readonly backwards: boolean;
  /** By backward integration at 1 kHz; null when it does not fall far enough. */
  readonly measuredSeconds: number | null;
  /** Seconds and dB. */
  readonly handles: readonly Handle[];
}

/** A response that is swept in frequency: the curves at positions of the sweep, and its motion. */
export interface Sweep {
  /** Positions of the sweep, in octaves from the middle, in rising order. */
  readonly octaves: readonly number[];
  readonly left: readonly (readonly number[])[];
  /** Null when both sides are alike. */
  readonly right: readonly (readonly number[])[] | null;
  /** Depth to each side, in octaves; rate in Hz; phase of the right side behind the left, in turns. */
  readonly depth: number;
  readonly hz: number;
  readonly behindTurns: number;
  /** False where the curves are crossfaded rather than shifted. */
  readonly slides?: false;
  /** Position at which it is drawn while nothing plays, in octaves; the middle when left out. */
  readonly rest?: number;
}

/** Magnitude over frequency, from an impulse response. Levels in dB at `hz`. */
export interface ResponsePicture {
  readonly kind: 'response';
  readonly hz: readonly number[];
  readonly left: readonly number[];
  /** Null when both sides are alike. */
  readonly right: readonly number[] | null;
  /** When it moves by itself. */
  readonly sweep?: Sweep;
  /** Hz and dB. */
  readonly handles: readonly Handle[];
}

/** Gain of each side over time, as a steady tone shows it. */
export interface MotionPicture {
  readonly kind: 'motion';
  readonly spanSeconds: number;
  readonly left: readonly number[];
  readonly right: readonly number[];
  /** Seconds and gain. */
  readonly handles?: readonly Handle[];
}

/** A sound around the listener, in metres: x to the right, y ahead. */
export interface PlacePicture {
  readonly kind: 'place';
  readonly at: { readonly x: number; readonly y: number };
  readonly path: readonly { readonly x: number; readonly y: number }[];
  readonly itdMs: number;
  readonly ildDb: number;
  readonly farthest: number;
}

/** Level out over level in, in dB, as a steady tone shows it. */
export interface CurvePicture {
  readonly kind: 'curve';
  readonly inDb: readonly number[];
  readonly outDb: readonly number[];
  /** The level from which it acts. */
  readonly mark: { readonly name: string; readonly db: number };
  /** dB in and dB out. */
  readonly handles: readonly Handle[];
}

/** Gains to left and right of a sound at the left, in the middle and at the right. */
export interface ImagePicture {
  readonly kind: 'image';
  readonly left: readonly [number, number];
  readonly middle: readonly [number, number];
  readonly right: readonly [number, number];
}

/** A room from above, in metres from its left front corner. */
export interface RoomPicture {
  readonly kind: 'room';
  readonly width: number;
  readonly depth: number;
  readonly height: number;
  readonly source: { readonly x: number; readonly y: number };
  readonly listener: { readonly x: number; readonly y: number };
  /** Where the first reflections meet the walls, and how much later than the direct sound they come. */
  readonly firsts: readonly { readonly x: number; readonly y: number; readonly ms: number }[];
  /** Seconds for 60 dB in the octaves from 125 Hz on, after Eyring. */
  readonly decays: readonly number[];
  /** Metres and metres. */
  readonly handles: readonly Handle[];
}

/** Strands side by side with their values; the piece tells which positions hold one. */
export interface BraidPicture {
  readonly kind: 'braid';
  /** Position of the only strand that is let in; null when all are, or a pattern decides. */
  readonly plays: number | null;
  readonly pattern: boolean;
  readonly strands: readonly {
    readonly place: number;
    readonly input: string;
    readonly level: number;
    readonly pan: number;
    readonly alignMs: number;
  }[];
}

/** Detune of each line over time. */
export interface SwayPicture {
  readonly kind: 'sway';
  readonly spanSeconds: number;
  readonly lines: readonly { readonly side: 'left' | 'right' | 'both'; readonly cents: readonly number[] }[];
}

/** Tones that went in and tones that came out, in Hz and dB under full scale. */
export interface PartialsPicture {
  readonly kind: 'partials';
  readonly before: readonly Partial[];
  readonly after: readonly Partial[];
  /** What was sent through, in words. */
  readonly test: string;
  /** Hz and dB. */
  readonly handles: readonly Handle[];
}

export interface Partial {
  readonly hz: number;
  readonly db: number;
}

/** Transfer curve: output over input. */
export interface TransferPicture {
  readonly kind: 'transfer';
  readonly input: readonly number[];
  readonly output: readonly number[];
  /** Range of inputs of a wave of -12 dBFS. */
  readonly met: { readonly from: number; readonly to: number };
  /** Heights and heights. */
  readonly handles: readonly Handle[];
}

/** A short stretch of a wave as it went in and as it came out. */
export interface WavePicture {
  readonly kind: 'wave';
  readonly spanSeconds: number;
  readonly before: readonly number[];
  readonly after: readonly number[];
  readonly test: string;
}

export type EffectPicture =
  | SwayPicture
  | PartialsPicture
  | TransferPicture
  | WavePicture
  | BraidPicture
  | RoomPicture
  | ImpulsePicture
  | RepeatsPicture
  | DecayPicture
  | ResponsePicture
  | MotionPicture
  | PlacePicture
  | CurvePicture
  | ImagePicture;
