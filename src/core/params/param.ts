import type { Tempo } from '../music/tempo';
import type { Taper } from './taper';

/**
 * What a number means. `gain` and `ratio` are linear factors (1 = 0 dB = 100 %), shown as dB and as percent;
 * `bits`, `octaves`, `percent` are plain figures in that unit; a `count` has none.
 */
export type Unit =
  | 'gain'
  | 'ratio'
  | 'hz'
  | 'ms'
  | 'db'
  | 'bits'
  | 'octaves'
  | 'percent'
  | 'pan'
  | 'count'
  | 'degrees'
  | 'metres'
  | 'cents'
  | 'semitones'
  | 'bpm';

interface Described {
  /** The name on the rail. */
  readonly label: string;
  /** One line: what it does to the sound. */
  readonly hint: string;
  /** The section of the editor it is shown in. */
  readonly group: string;
  /**
   * It cannot change while it sounds: the wet sound is faded out for a few milliseconds and in again with the new
   * value.
   */
  readonly mutesOnChange?: true;
}

export interface NumberParam extends Described {
  readonly kind: 'number';
  readonly unit: Unit;
  readonly min: number;
  readonly max: number;
  readonly initial: number | string;
  readonly taper: Taper;
  /** Time constant in seconds with which the engine follows a changed value. */
  readonly smoothingSeconds: number;
  /** Values with a light notch on the rail. */
  readonly notches?: readonly number[];
  /** A `time` may be a note value, ms or samples; a `rate` a note value or Hz. */
  readonly sync?: 'time' | 'rate';
  /** Note values offered at once, longest first: a decay or pre-delay found from the tempo by halving. */
  readonly ladder?: readonly string[];
  /** Names of the two sides of a bipolar rail; left and right when left out. */
  readonly ends?: readonly [string, string];
  /** The end of the range at which the stage is out of the circuit, shown as "off". */
  readonly offAt?: 'min' | 'max';
}

export interface ChoiceParam extends Described {
  readonly kind: 'choice';
  readonly options: readonly { readonly id: string; readonly label: string }[];
  readonly initial: string;
  /** The options are ordered, so that a link may modulate it. */
  readonly ordered?: true;
}

export interface ToggleParam extends Described {
  readonly kind: 'toggle';
  readonly initial: boolean;
}

export type Param = NumberParam | ChoiceParam | ToggleParam;
export type Params = Readonly<Record<string, Param>>;

/** As it is stored in a piece: a number in the own unit, a choice's id, a note value or samples, or on and off. */
export type ParamValue = number | string | boolean;
export type ParamValues = Readonly<Record<string, ParamValue>>;

/** Context for the conversion of note values and samples. */
export interface ValueContext {
  readonly tempo: Tempo;
  readonly sampleRate: number;
}

/** The figures every common setting needs when a test or a picture has no piece at hand. */
export const PLAIN_CONTEXT: ValueContext = { tempo: { bpm: 120, beatsPerBar: 4 }, sampleRate: 48000 };
