import { noteId, noteLadder, noteSeconds } from '../music/noteValue';
import type { NumberParam, Param, ParamValue, ValueContext } from './param';
import { fromEngineNumber, paramAtPosition, paramPosition, resolveNumber, toEngineNumber } from './resolve';
import { clampNumber } from './taper';

/** A notch of a rail: a note value, or a value such as unity. */
export interface Notch {
  readonly position: number;
  readonly value: ParamValue;
  /** Straight note values and named figures are drawn longer. */
  readonly major: boolean;
}

/** Every notch of a parameter at this tempo, from left to right. */
export function notchesOf(param: Param, context: ValueContext): Notch[] {
  if (param.kind === 'toggle') return [false, true].map((value) => ({ position: value ? 1 : 0, value, major: true }));
  if (param.kind === 'choice') {
    return param.options.map((option, i) => ({ position: paramPosition(param, i), value: option.id, major: true }));
  }
  const figures = (param.notches ?? []).map((value) => ({ position: paramPosition(param, value), value, major: true }));
  return [...figures, ...(param.sync ? noteNotches(param, context) : [])].sort((a, b) => a.position - b.position);
}

function noteNotches(param: NumberParam, context: ValueContext): Notch[] {
  return noteLadder(context.tempo.beatsPerBar).flatMap((note) => {
    const seconds = noteSeconds(note, context.tempo);
    const number = param.sync === 'rate' ? 1 / seconds : seconds * 1000;
    if (number < param.min || number > param.max) return [];
    return [{ position: paramPosition(param, number), value: noteId(note), major: note.feel === 'straight' }];
  });
}

/**
 * A dragged position as a setting: the notch when it is within `reach` of one, else the free value, rounded to what is
 * shown.
 */
export function settingAt(
  param: Param,
  position: number,
  context: ValueContext,
  reach: number,
  notches = notchesOf(param, context),
): ParamValue {
  let nearest: Notch | null = null;
  for (const notch of notches) {
    if (
      Math.abs(notch.position - position) <= reach &&
      (!nearest || Math.abs(notch.position - position) < Math.abs(nearest.position - position))
    )
      nearest = notch;
  }
  if (nearest) return nearest.value;
  const number = paramAtPosition(param, position);
  return param.kind === 'number' ? tidy(param, number) : fromEngineNumber(param, number);
}

/** Four significant figures: finer than any rail can be dragged on a screen, coarse enough to read. */
function tidy(param: NumberParam, number: number): number {
  if (number === 0) return 0;
  // Dragging sets whole steps of the keyboard only; values between can be typed.
  if (param.unit === 'semitones') return clampNumber(Math.round(number), param.min, param.max);
  return clampNumber(Number(number.toPrecision(4)), param.min, param.max);
}

/** The setting one step up or down: the next notch of a synced value, else a share of the rail. */
export function stepSetting(
  param: Param,
  value: ParamValue,
  context: ValueContext,
  direction: 1 | -1,
  size: 'fine' | 'normal' | 'large',
): ParamValue {
  const at = paramPosition(param, toEngineNumber(param, value, context));
  const byNotch = param.kind !== 'number' || (param.sync !== undefined && typeof value === 'string' && size !== 'fine');
  if (byNotch) {
    const notches = notchesOf(param, context);
    const skip = size === 'large' ? 3 : 1;
    const beyond = notches.filter((notch) => (notch.position - at) * direction > 1e-6);
    const ordered = direction > 0 ? beyond : beyond.reverse();
    return (ordered[skip - 1] ?? ordered[ordered.length - 1])?.value ?? value;
  }
  if (param.unit === 'semitones')
    return clampNumber(
      Math.round(resolveNumber(param, value, context)) + direction * (size === 'large' ? 12 : 1),
      param.min,
      param.max,
    );
  const share = size === 'fine' ? 0.001 : size === 'normal' ? 0.01 : 0.1;
  return settingAt(param, clampNumber(at + direction * share, 0, 1), context, 0, []);
}

/** Half or double a time; a note value stays one where there is one of that length. */
export function scaledTime(param: NumberParam, value: ParamValue, context: ValueContext, factor: number): ParamValue {
  const goal = clampNumber(resolveNumber(param, value, context) * factor, param.min, param.max);
  if (typeof value !== 'string') return tidy(param, goal);
  return settingAt(param, paramPosition(param, goal), context, 1e-4);
}
