import type { StereoBlock } from '../dsp/blocks';
import { commonParams, commonVisibleWhen } from './common';
import type { Params, ParamValues, ValueContext } from '../params/param';
import type { PreparedImpulse } from '../dsp/convolution';
import type { ImpulseNeed } from '../impulses/make';
import type { StepTime } from './stepTime';
import type { Condition, VisibleWhen } from './visibleWhen';

/** The chain of effects in a strand of a braid. */
export interface StrandWork {
  /** Processes a block in place. @returns true when it is silent afterwards */
  process(block: StereoBlock, silent: boolean): boolean;
  readonly silent: boolean;
  /** Latency in samples; none when left out. */
  readonly latest?: number;
}

/** The sound of one effect. `process` never allocates, waits or throws. */
export interface EffectProcessor {
  /**
   * Writes the wet signal of one block.
   * @param values every parameter at the end of the block, in the order of `paramIds`, own units
   */
  process(input: StereoBlock, wet: StereoBlock, values: Float64Array): void;
  /** Clears all memory, then locates. */
  reset(seconds: number, values: Float64Array): void;
  /**
   * Sets oscillators to a time of the piece and all ramps to these values; memory stays. Called when a silent processor
   * starts to process again.
   */
  locate(seconds: number, values: Float64Array): void;
  /** Takes an impulse that was prepared elsewhere; for effects that need one. */
  setImpulse?(impulse: PreparedImpulse): void;
  /** Sets the chains of its strands, by position from 0; for a braid. */
  setStrands?(works: readonly (StrandWork | null)[]): void;
  /**
   * Sets the sidechain: another channel's output, the same block refilled before each step; null for none.
   */
  setSidechain?(side: StereoBlock | null): void;
  /** Gives the musical time of each step, the same object refilled; for an effect that starts on the grid. */
  setTime?(time: StepTime): void;
  /** Samples into the next step at which its `sampleAccurateSwitch` changes; told before each step. */
  setSwitchOffset?(frames: number): void;
  /** Of a hold: samples from its start to the end of the last step; 0 once it has faded away. */
  readonly heldFrames?: number;
  /** Of a hold: lag of its read position behind the input in samples; 0 while it uses the input itself. */
  readonly lagFrames?: number;
  /** Of a braid: position of the strand that is let in at the end of the last step, 1 to 8; 0 for none, -1 for all. */
  readonly strandHeard?: number;
  /**
   * Takes a step of silence without being processed; for an effect that works on its past input, and is not located
   * when sound comes again. @returns true when it would be heard, and has to be processed
   */
  idle?(values: Float64Array): boolean;
  /** True while nothing would be heard without new input. */
  readonly silent: boolean;
  /** Latency in samples; none when left out. */
  readonly latency?: number;
  /** True while the dry signal must not be heard, whatever the mix. */
  readonly suppressesDry?: boolean;
  /** Lowest gain of the loop's guard since the last call; 1 when it did not act. */
  takeGuardGain(): number;
}

export interface Preset {
  readonly id: string;
  /** Named for a purpose or a scene of our own. */
  readonly name: string;
  /** What it is for, in one line. */
  readonly purpose: string;
  /** Words of the trade by which it is looked for, beside those of its name and purpose. */
  readonly searchWords?: string;
  readonly values: ParamValues;
  /** The strands that it makes, for a braid. */
  readonly strands?: readonly PresetStrand[];
}

/** A strand of a preset: a name, and effects from presets of theirs with some values named. */
export interface PresetStrand {
  /** 1 to 8. */
  readonly place: number;
  readonly name: string;
  readonly chain: readonly { readonly effect: string; readonly preset: string; readonly values?: ParamValues }[];
}

export interface EffectDefinition {
  /** Stable from outside: one lower-case word. */
  readonly id: string;
  readonly name: string;
  readonly family: 'delay' | 'reverb' | 'modulation' | 'space' | 'tone' | 'hold' | 'braid';
  readonly purpose: string;
  /** Words of the trade by which it is looked for, beside those of its name and purpose. */
  readonly searchWords: string;
  readonly params: Params;
  /** Order of the values that the processor is given. */
  readonly paramIds: readonly string[];
  readonly presets: readonly Preset[];
  /** The two or three parameters that say most about it, for its card. */
  readonly headline: readonly string[];
  /** When parameters are of use; always when left out. */
  readonly visibleWhen: VisibleWhen;
  readonly editorParts?: readonly EditorPart[];
  /** A small drawing of what it does, as a path in a box of 48 by 20, for an effect that is played. */
  readonly glyph?: string;
  /** Ready-made fields that play it. */
  readonly fields?: readonly ReadyField[];
  /** How many strands are in it at most; none when left out. */
  readonly maxStrands?: number;
  /** Parameters that hold sound for ever; an effect that is switched off lets go of it. */
  readonly holds?: readonly string[];
  /** Id of the parameter whose changes take effect at their sample; its processor is told by `setSwitchOffset`. */
  readonly sampleAccurateSwitch?: string;
  /**
   * Parameters that follow another while a switch is on, by the one that they follow. Where a hand switches it off they
   * begin where they were heard.
   */
  readonly follows?: { readonly while: string; readonly leaders: Readonly<Record<string, string>> };
  /**
   * What it needs prepared beside its values, for an effect that works with an impulse.
   * @param sound hash of the own sound, if one is chosen
   */
  impulse?(values: ParamValues, context: ValueContext, sound: string | null): ImpulseNeed | null;
}

/** Of a ready-made field: a parameter and the part of its rail. */
interface ReadyAxis {
  readonly param: string;
  readonly from: number;
  readonly to: number;
  readonly notes?: boolean;
}

/** A field that plays one effect. At rest in the centre the effect is as `values` and the axes say there. */
export interface ReadyField {
  readonly id: string;
  readonly name: string;
  /** What one hears, in one line. */
  readonly purpose: string;
  readonly preset: string;
  readonly values: ParamValues;
  readonly across: ReadyAxis;
  readonly up: ReadyAxis;
  readonly away?: ReadyAxis;
}

/** What the editor of an effect needs besides rails. */
export interface EditorPart {
  /**
   * `sidechain` chooses the track that it listens to, `ownSound` the sound that it works with, `holdPad` plays it, `strandRow`
   * draws the row of a pattern.
   */
  readonly part: 'sidechain' | 'ownSound' | 'holdPad' | 'strandRow';
  /** The group of parameters that it shows instead of their rails. */
  readonly replaces?: string;
  /** The parameter under which it is shown. */
  readonly after: string;
  /** Always when left out. */
  readonly when?: Condition;
  /** Of `ownSound`: the parameter, in ms, that says how much of the sound is used. */
  readonly length?: string;
}

type Parts = Omit<EffectDefinition, 'paramIds' | 'params' | 'visibleWhen'> & {
  readonly params: Params;
  readonly visibleWhen?: VisibleWhen;
};

export function defineEffect(parts: Parts): EffectDefinition {
  const params = { ...commonParams, ...parts.params };
  const visibleWhen = { ...commonVisibleWhen, ...parts.visibleWhen };
  return { ...parts, params, paramIds: Object.keys(params), visibleWhen };
}
