import { effectOf } from '../effects/catalogue';
import { beatsToSamples } from '../music/tempo';
import { linkTransferOf } from '../piece/links/link';
import type { Macro } from '../automation/modulator';
import { laneTrack } from '../piece/moves/lane';
import { macrosOf, paramOf } from '../piece/find';
import {
  channelParams,
  ON_PARAM,
  type Lane,
  type Link,
  type Piece,
  type Send,
  type Slot,
  type Target,
} from '../piece/piece';
import type { PlanLane, PlanLink, PlanTarget } from './plan';

const CHANNEL_PARAM_IDS = Object.keys(channelParams);

/**
 * Index of a target among a channel's own values: its level, pan and mute, then its sends in order, or the macros on
 * the main output; -1 for none.
 */
export function channelValueIndex(
  target: Target,
  sends: readonly Pick<Send, 'to'>[],
  macros: readonly Pick<Macro, 'id'>[],
): number {
  const beyond = (index: number): number => (index < 0 ? -1 : CHANNEL_PARAM_IDS.length + index);
  switch (target.kind) {
    case 'channel':
      return CHANNEL_PARAM_IDS.indexOf(target.param);
    case 'send':
      return beyond(sends.findIndex(({ to }) => to === target.to));
    case 'macro':
      return beyond(macros.findIndex(({ id }) => id === target.macro));
    case 'effect':
    case 'awaited':
    case 'tempo':
      return -1;
  }
}

/** Index of a parameter of an effect, or of its switch, which comes after them; -1 for none. */
export function slotValueIndex(effect: string, param: string): number {
  const { paramIds } = effectOf(effect);
  return param === ON_PARAM ? paramIds.length : paramIds.indexOf(param);
}

/** Where a target is in the rows of a channel; null when it is not there. */
function planTarget(piece: Piece, target: Target, chain: readonly Slot[], sends: readonly Send[]): PlanTarget | null {
  if (!paramOf(piece, target)) return null;
  if (target.kind !== 'effect') {
    const value = channelValueIndex(target, sends, macrosOf(piece));
    return value < 0 ? null : { slot: -1, value };
  }
  const slot = chain.findIndex(({ id }) => id === target.effect);
  const value = slot < 0 ? -1 : slotValueIndex(chain[slot]!.effect, target.param);
  return value < 0 ? null : { slot, value };
}

export function planLane(piece: Piece, lane: Lane, chain: readonly Slot[], sends: readonly Send[]): PlanLane[] {
  const param = paramOf(piece, lane.target);
  const target = planTarget(piece, lane.target, chain, sends);
  if (!param || !target) return [];
  // Counted by the unmoved tempo: the engine reads lanes by the beat.
  const at = (beat: number): number => beatsToSamples(beat, piece.tempo, piece.sampleRate);
  return [{ ...target, ...laneTrack(piece, lane, param, at) }];
}

export function planLink(piece: Piece, link: Link, chain: readonly Slot[], sends: readonly Send[]): PlanLink[] {
  const found = planTarget(piece, link.target, chain, sends);
  const index = piece.modulators.findIndex(({ id }) => id === link.modulator);
  return found && index >= 0
    ? [
        {
          ...found,
          modulator: index,
          transfer: linkTransferOf(link),
          rests: Float64Array.from(
            (link.rests ?? []).flatMap(({ start, end }) => [start, end]),
            (beat) => beatsToSamples(beat, piece.tempo, piece.sampleRate),
          ),
        },
      ]
    : [];
}
