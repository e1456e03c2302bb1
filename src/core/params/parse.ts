import { noteId, parseNote } from '../music/noteValue';
import { dbToGain, formatNumber } from './format';
import type { NumberParam, Param, ParamValue, ValueContext } from './param';
import { resolveNumber } from './resolve';

export type Parsed =
  { readonly ok: true; readonly value: ParamValue } | { readonly ok: false; readonly message: string };

const YES = new Set(['on', 'yes', 'true', '1']);
const NO = new Set(['off', 'no', 'false', '0']);
const NUMBER = /^([+-]?(?:\d+\.?\d*|\.\d+))\s*([a-z%°]*(?: [a-z]+)?)$/;

/** Reads what a person types into a rail. The message of a refusal says what would be understood. */
export function parseValue(param: Param, text: string, context: ValueContext): Parsed {
  const clean = text
    .trim()
    .toLowerCase()
    .replace(/[\u2212\u2013]/g, '-')
    .replace(',', '.');
  if (param.kind === 'toggle') {
    if (YES.has(clean)) return { ok: true, value: true };
    if (NO.has(clean)) return { ok: true, value: false };
    return { ok: false, message: `${param.label} is on or off.` };
  }
  if (param.kind === 'choice') {
    const found = param.options.find(
      (option) => option.id.toLowerCase() === clean || option.label.toLowerCase() === clean,
    );
    if (found) return { ok: true, value: found.id };
    return { ok: false, message: `${param.label} can be ${param.options.map((option) => option.label).join(', ')}.` };
  }
  return parseNumber(param, clean, context);
}

function parseNumber(param: NumberParam, clean: string, context: ValueContext): Parsed {
  if (clean === 'off' && param.offAt) return { ok: true, value: param.offAt === 'max' ? param.max : param.min };
  if (clean === 'centre' && param.unit === 'pan') return { ok: true, value: 0 };
  if ((clean === 'silent' || clean === '-inf') && param.unit === 'gain') return { ok: true, value: 0 };
  const note = param.sync ? parseNote(clean) : null;
  if (note) return inRange(param, noteId(note), clean, context);
  const match = NUMBER.exec(clean);
  const number = match ? withUnit(param, Number(match[1]), match[2] ?? '') : null;
  if (number === null) return { ok: false, message: `"${clean}" is not understood. ${example(param)}` };
  return inRange(param, number, clean, context);
}

function inRange(param: NumberParam, value: ParamValue, typed: string, context: ValueContext): Parsed {
  const raw =
    typeof value === 'number' ? value : resolveNumber({ ...param, min: -Infinity, max: Infinity }, value, context);
  const slack = 1e-9 * (Math.abs(param.min) + Math.abs(param.max));
  if (raw < param.min - slack || raw > param.max + slack) {
    const from = formatNumber({ ...param, offAt: undefined }, param.min);
    const to = formatNumber({ ...param, offAt: undefined }, param.max);
    return { ok: false, message: `${param.label} goes from ${from} to ${to}; ${typed} lies outside.` };
  }
  return { ok: true, value };
}

/** The typed figure in the parameter's own unit, or a samples text, or null when the unit does not fit. */
function withUnit(param: NumberParam, figure: number, unit: string): ParamValue | null {
  if (!Number.isFinite(figure)) return null;
  if (param.unit === 'ms') {
    if (unit === '' || unit === 'ms') return figure;
    if (unit === 's') return figure * 1000;
    return unit === 'samples' || unit === 'sample' || unit === 'smp' ? `${figure} samples` : null;
  }
  if (param.unit === 'hz')
    return unit === '' || unit === 'hz' ? figure : unit === 'khz' || unit === 'k' ? figure * 1000 : null;
  if (param.unit === 'gain')
    return unit === '' || unit === 'db' ? dbToGain(figure) : unit === '%' ? figure / 100 : null;
  if (param.unit === 'ratio')
    return unit === '' || unit === '%' ? figure / 100 : unit === 'db' ? dbToGain(figure) : null;
  if (param.unit === 'pan') return panOf(figure, unit, param.ends);
  const names: Record<
    'db' | 'bits' | 'octaves' | 'percent' | 'count' | 'degrees' | 'metres' | 'cents' | 'semitones' | 'bpm',
    readonly string[]
  > = {
    db: ['db'],
    bits: ['bit', 'bits'],
    octaves: ['oct', 'octaves'],
    percent: ['%'],
    count: [],
    degrees: ['°', 'deg'],
    metres: ['m'],
    cents: ['cent', 'cents', 'ct'],
    semitones: ['st', 'semitone', 'semitones'],
    bpm: ['bpm'],
  };
  if (unit !== '' && !names[param.unit].includes(unit)) return null;
  return isWholeTurn(param) && figure >= -FULL_TURN && figure < 0 ? figure + FULL_TURN : figure;
}

const FULL_TURN = 360;
/** A direction of 360 degrees: -90 is the same as 270. */
const isWholeTurn = ({ unit, min, max }: NumberParam): boolean => unit === 'degrees' && min === 0 && max === FULL_TURN;

/** "30 left", "30 l", "30 % left", "-30". */
function panOf(figure: number, given: string, ends: readonly [string, string] = ['left', 'right']): number | null {
  const unit = given.replace('%', '').trim();
  if (unit === 'l' || unit === ends[0]) return -figure / 100;
  return unit === '' || unit === 'r' || unit === ends[1] ? figure / 100 : null;
}

function example(param: NumberParam): string {
  if (param.sync === 'time') return 'Try 1/8d, 3/16, 2 beats, 250 ms, 0.5 s or 480 samples.';
  if (param.sync === 'rate') return 'Try 1/4, 2 bars or 0.5 Hz.';
  const byUnit: Record<NumberParam['unit'], string> = {
    gain: 'Try -6 dB.',
    ratio: 'Try 50 %.',
    hz: 'Try 800 Hz or 2 kHz.',
    ms: 'Try 20 ms.',
    db: 'Try -6 dB.',
    bits: 'Try 12.',
    octaves: 'Try 1 oct.',
    percent: 'Try 0.5 %.',
    count: 'Try a number.',
    degrees: 'Try 90.',
    metres: 'Try 3 m.',
    cents: 'Try 7 cent.',
    semitones: 'Try -12.',
    bpm: 'Try 92.',
    pan: `Try 30 ${param.ends?.[0] ?? 'left'}.`,
  };
  return byUnit[param.unit];
}
