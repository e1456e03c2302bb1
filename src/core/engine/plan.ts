import type { ImpulseNeed } from '../impulses/make';
import type { MetreSpan } from '../music/metre';
import type { Tempo, TempoMap } from '../music/tempo';
import type { LinkTransfer } from '../automation/linkTransfer';
import type { ModulatorTrack } from '../automation/modulatorTrack';
import type { LaneTrack } from '../automation/evaluate';

/** A piece made flat: everything in samples and engine numbers, ready to be sent to another thread and played. */
export interface Plan {
  readonly sampleRate: number;
  readonly lengthSamples: number;
  readonly loop: { readonly on: boolean; readonly start: number; readonly end: number };
  /** Tracks in order, then returns, the main output last. */
  readonly channels: readonly PlanChannel[];
  /** Indexes of tracks and returns, each before all that it sends to. */
  readonly order: readonly number[];
  readonly modulators: readonly ModulatorTrack[];
  /** Length of a bar in quarter notes. */
  readonly beatsPerBar: number;
  /** Stretches of one metre each, from beat 0 on, for what starts on bar lines. */
  readonly metres: readonly MetreSpan[];
  /** Beats a minute by which lanes and note values were counted. */
  readonly bpm: number;
  /** How the tempo moves; null where it does not. */
  readonly tempoMap: TempoMap | null;
}

/** The tempo of a plan, for conversions of positions; its metres are in `metres`. */
export const tempoOfPlan = ({ bpm, beatsPerBar, tempoMap }: Plan): Tempo => ({
  bpm,
  beatsPerBar,
  ...(tempoMap ? { map: tempoMap } : {}),
});

export interface PlanChannel {
  readonly id: string;
  readonly clips: readonly PlanClip[];
  /** Gain, pan and mute, in the order of channelParams. */
  readonly values: Float64Array;
  /** False while others are soloed. */
  readonly audible: boolean;
  /** False while it only feeds returns, one of which is soloed. */
  readonly direct: boolean;
  readonly sends: readonly PlanSend[];
  readonly slots: readonly PlanSlot[];
  readonly lanes: readonly PlanLane[];
  readonly links: readonly PlanLink[];
  /** Value of each macro of the piece, on the main output alone; as values they come after its own. */
  readonly macros: readonly { readonly id: string; readonly level: number }[];
}

export interface PlanSend {
  readonly to: string;
  readonly pre: boolean;
  /** One value: the level. */
  readonly values: Float64Array;
}

export interface PlanClip {
  readonly sound: string;
  readonly start: number;
  readonly length: number;
  readonly offset: number;
  readonly gain: number;
  readonly fadeIn: number;
  readonly fadeOut: number;
  /** Indexes in FADE_SHAPES. */
  readonly fadeInShape: number;
  readonly fadeOutShape: number;
  readonly reversed: boolean;
}

export interface PlanSlot {
  readonly id: string;
  readonly effect: string;
  readonly on: boolean;
  readonly values: Float64Array;
  /** Which values follow tempo and metre: 1 for lengths, -1 for rates, of bars 2 and -2; 0 for none. */
  readonly follows: Int8Array;
  /** The impulse it needs, if it is one that does. */
  readonly impulse: ImpulseNeed | null;
  /** The channel that it listens to, if it listens aside. */
  readonly side: string | null;
  /** Effects on its treated sound alone. */
  readonly wetPath: readonly PlanSlot[];
  /** What is in its strands, by place from 1. */
  readonly strands: readonly { readonly place: number; readonly slots: readonly PlanSlot[] }[];
}

/** Every effect of a chain at any depth: itself, then its wet path, then its strands. */
export const planSlotsIn = (slots: readonly PlanSlot[]): PlanSlot[] =>
  slots.flatMap((slot) => [
    slot,
    ...planSlotsIn(slot.wetPath),
    ...slot.strands.flatMap((strand) => planSlotsIn(strand.slots)),
  ]);

/** What of a channel a lane or a link acts on. */
export interface PlanTarget {
  /** Index among all effects of the channel at any depth, or -1 for the channel itself. */
  readonly slot: number;
  readonly value: number;
}

export type PlanLane = LaneTrack & PlanTarget;

export interface PlanLink extends PlanTarget {
  /** Index among the plan's modulators. */
  readonly modulator: number;
  readonly transfer: LinkTransfer;
  /** Places between which it does nothing: beginning and end of each stretch. */
  readonly rests: Float64Array;
}

/** What of a piece a print takes: one channel's clips inside a stretch, before its level and pan, through its chain. */
export interface PrintScope {
  readonly channel: string;
  readonly clip: string | null;
  readonly fromSample: number;
  readonly toSample: number;
  /** Only what is in these stretches; all between the two ends when left out. */
  readonly hits?: readonly { readonly fromSample: number; readonly toSample: number }[] | undefined;
}
