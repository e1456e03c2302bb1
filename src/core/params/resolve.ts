import { secondsPerBeat } from '../music/tempo';
import { noteSeconds, parseNote, type NoteValue } from '../music/noteValue';
import type { NumberParam, Param, ParamValue, Params, ParamValues, ValueContext } from './param';
import { clampNumber, positionToValue, valueToPosition } from './taper';

const SAMPLES = /^(-?\d+(?:\.\d+)?)\s*(?:samples?|smp)$/i;

/** The note value a setting is synced to, or null when it is independent of the tempo. */
export const syncedNote = (value: ParamValue): NoteValue | null =>
  typeof value === 'string' ? parseNote(value) : null;

export function samplesOf(value: ParamValue): number | null {
  const match = typeof value === 'string' ? SAMPLES.exec(value.trim()) : null;
  return match ? Number(match[1]) : null;
}

/** A setting as a figure in the parameter's own unit, limited to its range (a 4-bar echo at 40 BPM becomes 8 s). */
export function resolveNumber(param: NumberParam, value: ParamValue, context: ValueContext): number {
  return clampNumber(unclamped(param, value, context), param.min, param.max);
}

function unclamped(param: NumberParam, value: ParamValue, context: ValueContext): number {
  if (typeof value === 'number') return value;
  const note = syncedNote(value);
  if (note) {
    const seconds = noteSeconds(note, context.tempo);
    return param.sync === 'rate' ? 1 / seconds : seconds * 1000;
  }
  const samples = samplesOf(value);
  if (samples !== null) return (samples * 1000) / context.sampleRate;
  return typeof param.initial === 'number' ? param.initial : resolveNumber(param, param.initial, context);
}

/** Any setting as the number the engine carries: own unit, a choice's index, or 0 and 1. */
export function toEngineNumber(param: Param, value: ParamValue, context: ValueContext): number {
  if (param.kind === 'number') return resolveNumber(param, value, context);
  if (param.kind === 'toggle') return value === true ? 1 : 0;
  return Math.max(
    0,
    param.options.findIndex((option) => option.id === value),
  );
}

/** The engine's number back to a setting. */
export function fromEngineNumber(param: Param, number: number): ParamValue {
  if (param.kind === 'number') return clampNumber(number, param.min, param.max);
  if (param.kind === 'toggle') return number >= 0.5;
  const index = clampNumber(Math.round(number), 0, param.options.length - 1);
  return param.options[index]?.id ?? param.initial;
}

/** Position on the rail, 0-1, of an engine number. */
export function paramPosition(param: Param, number: number): number {
  if (param.kind === 'number') return valueToPosition(param, number);
  if (param.kind === 'toggle') return number >= 0.5 ? 1 : 0;
  return param.options.length < 2 ? 0 : number / (param.options.length - 1);
}

/** Engine number at a position on the rail; choices and switches fall to the nearest step. */
export function paramAtPosition(param: Param, position: number): number {
  if (param.kind === 'number') return positionToValue(param, position);
  if (param.kind === 'toggle') return position >= 0.5 ? 1 : 0;
  return Math.round(clampNumber(position, 0, 1) * (param.options.length - 1));
}

export const initialValues = (params: Params): ParamValues =>
  Object.fromEntries(Object.entries(params).map(([id, param]) => [id, param.initial]));

/** A lane's length in beats as ms, exactly as the note value of that length is. */
export const beatsToMs = (beats: number, { tempo }: ValueContext): number => beats * secondsPerBeat(tempo) * 1000;
