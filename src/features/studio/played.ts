import { create } from 'zustand';
import { effectOf } from '../../core/effects/catalogue';
import { chainOf, channelIds, slotsIn } from '../../core/piece/find';
import type { ParamValue, ParamValues } from '../../core/params/param';
import type { EffectTarget, Piece } from '../../core/piece/piece';

/** Something that is played now. */
export interface Played {
  /** The beat at which it was pressed. */
  readonly since: number;
  /** The beat of the line that it waits for; null for at once. */
  readonly waitsUntil: number | null;
  /** The value; null where it moves. */
  readonly value: ParamValue | null;
}

/** A preset of an effect, or a user preset. */
export interface PresetChoice {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  readonly values: ParamValues;
  readonly own: boolean;
}

interface PlayedStore {
  /** By the keys of targets. */
  readonly now: Readonly<Record<string, Played>>;
  /** Presets that effects were stepped to and that have not become edits, by the effects' ids. */
  readonly presets: Readonly<Record<string, PresetChoice>>;
  put(key: string, played: Played): void;
  drop(key: string): void;
  /** @param preset null once it has become an edit */
  step(slot: string, preset: PresetChoice | null): void;
}

const without = <T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record).filter(([other]) => other !== key));

/** What is played at this moment. */
export const usePlayed = create<PlayedStore>((set) => ({
  now: {},
  presets: {},
  put: (key, played) => set(({ now }) => ({ now: { ...now, [key]: played } })),
  drop: (key) => set(({ now }) => (key in now ? { now: without(now, key) } : {})),
  step: (slot, preset) =>
    set(({ presets }) => ({ presets: preset === null ? without(presets, slot) : { ...presets, [slot]: preset } })),
}));

/** The switches of all holds of a piece: of the main output first, then of tracks and returns, in their order. */
export function holdTargets(piece: Piece): EffectTarget[] {
  const ids = channelIds(piece);
  return [ids[ids.length - 1]!, ...ids.slice(0, -1)].flatMap((channel) =>
    slotsIn(chainOf(piece, channel)).flatMap(({ id, effect }): EffectTarget[] => {
      const { family, holds } = effectOf(effect);
      return family === 'hold' ? [{ kind: 'effect', channel, effect: id, param: holds![0]! }] : [];
    }),
  );
}
