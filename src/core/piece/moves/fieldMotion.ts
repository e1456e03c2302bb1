import { notchesOf } from '../../params/notches';
import { contextOf, findLane, paramOf } from '../find';
import type { Piece, Target } from '../piece';
import { axesOf, type FieldAxis, type Lift, type PlayField } from '../playField';
import { basePosition, laneNumber, laneTrack, laneUnit, numberInUnit, trackAt } from './lane';

/** Distance from the centre, in halves of a side, from which a field has its full effect. */
export const FREE_RADIUS = 0.5;

/** A position in a field, 0-1 from the left and from the bottom. */
export interface FieldPoint {
  readonly x: number;
  readonly y: number;
}

/** A target and its position on its rail. */
export interface ParamPosition {
  readonly target: Target;
  readonly position: number;
}

const within = (x: number): number => Math.max(0, Math.min(1, x));

/** Value of each parameter of a field when a finger is at a point. */
export function positionsAt(piece: Piece, field: PlayField, { x, y }: FieldPoint): ParamPosition[] {
  const distance = Math.hypot(2 * x - 1, 2 * y - 1) / FREE_RADIUS;
  const shares = [within(x), within(y), within(distance)];
  return axesOf(field).map((axis, i) => ({ target: axis.target, position: onAxis(piece, axis, shares[i]!) }));
}

function onAxis(piece: Piece, { target, from, to, notes }: FieldAxis, share: number): number {
  const position = from + (to - from) * share;
  const param = paramOf(piece, target);
  if (!notes || !param) return position;
  const [low, high] = from < to ? [from, to] : [to, from];
  const among = notchesOf(param, contextOf(piece)).filter(
    (notch) => notch.major && notch.position >= low && notch.position <= high,
  );
  const nearer = (best: number, at: number): number =>
    Math.abs(at - position) < Math.abs(best - position) ? at : best;
  return among.length === 0 ? position : among.map((notch) => notch.position).reduce(nearer);
}

/** Value of each parameter while no finger is on the field: of its lane, else its base value. */
export const restPositions = (piece: Piece, field: PlayField, beat: number): ParamPosition[] =>
  axesOf(field).map(({ target }) => ({ target, position: restPosition(piece, target, beat) }));

function restPosition(piece: Piece, target: Target, beat: number): number {
  const param = paramOf(piece, target);
  if (!param) return 0;
  const lane = findLane(piece, target);
  return lane?.on ? trackAt(laneTrack(piece, lane, param), beat) : basePosition(piece, target, param);
}

/** The point of a field that corresponds to the present values of its parameters. */
export function restPoint(piece: Piece, { across, up }: Pick<PlayField, 'across' | 'up'>, beat: number): FieldPoint {
  const share = ({ target, from, to }: FieldAxis): number =>
    from === to ? 0.5 : within((restPosition(piece, target, beat) - from) / (to - from));
  return { x: share(across), y: share(up) };
}

/**
 * The return of a field after the finger has left it.
 * @param share of the return time that has passed, 0-1
 * @returns share of the distance that is left; below zero beyond the goal
 */
export function remainingAfter(lift: Lift, share: number): number {
  if (lift === 'stay') return 1;
  if (share >= 1) return 0;
  if (lift === 'glide') return 1 - share * share * (3 - 2 * share);
  // A damped oscillation: it passes its goal three times, the last at the end.
  return Math.exp(-4 * share) * Math.cos(2.5 * Math.PI * share);
}

const ROUNDINGS = 3;

/**
 * A number of the engine exactly as a lane gives it that was recorded from it: through the lane's unit and back.
 */
export function playedNumber(piece: Piece, target: Target, number: number): number {
  const param = paramOf(piece, target);
  const unit = findLane(piece, target)?.unit ?? laneUnit(piece, target);
  if (!param) return number;
  // Repeated, so that the result is a fixed point of the conversion.
  let played = number;
  for (let i = 0; i < ROUNDINGS; i += 1) played = laneNumber(piece, { unit }, param, numberInUnit(piece, played, unit));
  return played;
}
