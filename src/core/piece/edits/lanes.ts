import type { Draft } from 'immer';
import * as z from 'zod';
import { laneTrack, laneUnit, valueInUnit } from '../moves/lane';
import { pointSchema, type Point } from '../../automation/point';
import { defineEdit, EditRefused } from '../edit';
import { channelName, channelOfTarget, findLane, paramOf, sameTarget } from '../find';
import { draftChannel } from './channels';
import { laneSchema, targetSchema, type Lane, type Piece, type Target } from '../piece';

const nameOf = (piece: Piece, target: Target | undefined): string =>
  target
    ? `${paramOf(piece, target)?.label.toLowerCase() ?? 'move'} on ${channelName(piece, channelOfTarget(target))}`
    : 'a move';

const laneName = (piece: Piece, lane: string): string =>
  nameOf(piece, piece.lanes.find((candidate) => candidate.id === lane)?.target);

function draftLane(draft: Draft<Piece>, id: string): Draft<Lane> {
  const lane = draft.lanes.find((candidate) => candidate.id === id);
  if (!lane) throw new EditRefused('That lane is no longer in the piece.');
  return lane;
}

const HOW = { ride: 'Record', draw: 'Add a lane for', thin: 'Thin' } as const;

/** Replaces the lane with the same target. */
export function putLane(draft: Draft<Piece>, lane: Lane): void {
  if (!paramOf(draft, lane.target))
    throw new EditRefused('What was moved is no longer in the piece; the move has nothing to go to.');
  const at = draft.lanes.findIndex((candidate) => sameTarget(candidate.target, lane.target));
  if (at >= 0) draft.lanes[at] = lane;
  else draft.lanes.push(lane);
}

/** The lane after a pass of recording, or drawn by hand: replaces the one with the same target. */
export const recordMove = defineEdit({
  name: 'recordMove',
  args: z.strictObject({ lane: laneSchema, how: z.enum(['ride', 'draw', 'thin']) }),
  label: ({ lane, how }, before) => `${HOW[how]} ${nameOf(before, lane.target)}`,
  apply: (draft, { lane }) => putLane(draft, lane),
});

/** Several lanes at once, recorded in one pass or changed together, so that one undo takes all of it back. */
export const layMoves = defineEdit({
  name: 'layMoves',
  args: z.strictObject({ lanes: z.array(laneSchema).min(1), what: z.string().min(1).max(60) }),
  label: ({ lanes, what }, before) =>
    `${what}: ${lanes.length === 1 ? nameOf(before, lanes[0]!.target) : `${lanes.length} lanes`}`,
  apply: (draft, { lanes }) => lanes.forEach((lane) => putLane(draft, lane)),
});

/** Opens a send for picked hits; one that does not exist is created, closed. */
export const throwHits = defineEdit({
  name: 'throwHits',
  args: z.strictObject({ lane: laneSchema, hits: z.number().int().min(1) }),
  label: ({ lane: { target }, hits }, before) =>
    `Throw ${hits} ${hits === 1 ? 'hit' : 'hits'} of ${channelName(before, channelOfTarget(target))} into ${channelName(before, target.kind === 'send' ? target.to : '')}`,
  apply: (draft, { lane }) => {
    const { target } = lane;
    if (target.kind !== 'send') throw new EditRefused('Throws open a send; that is none.');
    const channel = draftChannel(draft, target.channel);
    if (!channel.sends.some((send) => send.to === target.to))
      channel.sends.push({ to: target.to, level: 0, pre: false });
    putLane(draft, lane);
  },
});

export const setPoints = defineEdit({
  name: 'setPoints',
  args: z.strictObject({
    lane: z.string(),
    points: z.array(pointSchema).min(1),
    what: z.enum(['Move', 'Add', 'Remove', 'Bend', 'Shift']),
  }),
  label: ({ lane, what }, before) =>
    `${what === 'Bend' || what === 'Shift' ? `${what} a segment` : `${what} a point`} of ${laneName(before, lane)}`,
  apply: (draft, { lane, points }) => {
    draftLane(draft, lane).points = [...points].sort((a, b) => a.beat - b.beat);
  },
});

export const setLaneOn = defineEdit({
  name: 'setLaneOn',
  args: z.strictObject({ lane: z.string(), on: z.boolean() }),
  label: ({ lane, on }, before) => `${on ? 'Follow' : 'Leave'} ${laneName(before, lane)}`,
  apply: (draft, { lane, on }) => {
    draftLane(draft, lane).on = on;
  },
});

/** Sets whether points travel with the clips above them. Does not change the sound. */
export const setLanesTravel = defineEdit({
  name: 'setLanesTravel',
  args: z.strictObject({ lanes: z.array(z.string()).min(1), travels: z.boolean() }),
  label: ({ lanes, travels }, before) =>
    `${lanes.length === 1 ? laneName(before, lanes[0]!) : `${lanes.length} lanes`} ${travels ? 'travel with clips' : 'stay with the track'}`,
  apply: (draft, { lanes, travels }) => {
    for (const id of lanes) {
      const lane = draftLane(draft, id);
      if (travels) lane.travels = true;
      else delete lane.travels;
    }
  },
});

/** Redirects moves to another parameter: they keep their positions on the rail. */
export const pointLane = defineEdit({
  name: 'pointLane',
  args: z.strictObject({ lane: z.string(), to: targetSchema }),
  label: ({ lane, to }, before) => `Point ${laneName(before, lane)} at ${nameOf(before, to)}`,
  apply: (draft, { lane, to }) => {
    const found = draftLane(draft, lane) as Lane;
    const piece = draft as Piece;
    const from = paramOf(piece, found.target);
    const param = paramOf(piece, to);
    if (!from || !param) throw new EditRefused('That parameter is no longer in the piece; the moves wait on.');
    if (findLane(piece, to))
      throw new EditRefused(`${param.label} has moves of its own. Remove them first, or copy these into them.`);
    const { positions } = laneTrack(piece, found, from);
    const unit = laneUnit(piece, to);
    const order = [...found.points].sort((a, b) => a.beat - b.beat);
    const points = order.map((point, i): Point => ({
      ...point,
      value: valueInUnit(piece, param, positions[i]!, unit),
      shape: param.kind === 'number' ? point.shape : 'hold',
    }));
    Object.assign(found, { target: to, unit, points });
  },
});

export const removeLane = defineEdit({
  name: 'removeLane',
  args: z.strictObject({ lane: z.string() }),
  label: ({ lane }, before) => `Remove moves of ${laneName(before, lane)}`,
  apply: (draft, { lane }) => {
    draft.lanes = draft.lanes.filter((candidate) => candidate.id !== lane);
  },
});

/** Removes all moves of a channel, or of the piece. */
export const clearLanes = defineEdit({
  name: 'clearLanes',
  args: z.strictObject({ channel: z.string().nullable() }),
  label: ({ channel }, before) => `Clear all moves of ${channel === null ? 'the piece' : channelName(before, channel)}`,
  apply: (draft, { channel }) => {
    draft.lanes = draft.lanes.filter((lane) => channel !== null && channelOfTarget(lane.target) !== channel);
  },
});
