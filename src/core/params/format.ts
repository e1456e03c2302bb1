import { nearestNote, noteBeats, noteName } from '../music/noteValue';
import { secondsPerBeat } from '../music/tempo';
import type { NumberParam, Param, ParamValue, ValueContext } from './param';
import { resolveNumber, syncedNote, samplesOf } from './resolve';

const MINUS = '\u2212';
const signed = (text: string): string => text.replace('-', MINUS);

/** A figure that rounds to nothing has no sign. */
const unsignedZero = (text: string): string => (Number(text) === 0 ? text.replace('-', '') : text);

const fixed = (value: number, decimals: number): string => unsignedZero(value.toFixed(decimals));

/** Rounded to so many significant figures, of which none are beyond the third decimal. */
function rounded(value: number, digits: number): string {
  const size = Math.abs(value);
  if (size === 0) return '0';
  const decimals = Math.max(0, Math.min(digits, digits - 1 - Math.floor(Math.log10(size))));
  const text = fixed(value, decimals);
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** Three significant figures without noise: 0.489, 4.89, 48.9, 489, 4890. */
export const figures = (value: number, digits = 3): string => signed(rounded(value, digits));

/**
 * Whether a value is shown in the next larger unit: by its rounded value, so that the text is parsed to the same value.
 */
const reaches = (value: number, edge: number): boolean => Number(rounded(value, 3)) >= edge;

/** A parameter with a maximum above this is shown in seconds. */
const LONG_MS = 20_000;

export const formatMs = (ms: number): string =>
  reaches(ms, 10_000) ? `${figures(ms / 1000, 4)} s` : `${figures(ms)} ms`;

export const formatHz = (hz: number): string => (reaches(hz, 1000) ? `${figures(hz / 1000)} kHz` : `${figures(hz)} Hz`);

export function formatDb(db: number): string {
  if (db < -120) return 'silent';
  const text = fixed(db, 1);
  return `${Number(text) > 0 ? '+' : ''}${signed(text)} dB`;
}

export const gainToDb = (gain: number): number => 20 * Math.log10(Math.max(gain, 1e-12));
export const dbToGain = (db: number): number => Math.pow(10, db / 20);

function formatPan(pan: number, [low, high]: readonly [string, string] = ['left', 'right']): string {
  const share = Math.round(Math.abs(pan) * 100);
  return share === 0 ? 'centre' : `${share} % ${pan < 0 ? low : high}`;
}

/** An engine number of this parameter with its unit. */
export function formatNumber(param: NumberParam, value: number): string {
  if (param.offAt === 'max' && value >= param.max) return 'off';
  if (param.offAt === 'min' && value <= param.min) return 'off';
  if (param.unit === 'ms')
    return param.max > LONG_MS && reaches(value, 1000) ? `${figures(value / 1000)} s` : formatMs(value);
  if (param.unit === 'hz') return formatHz(value);
  if (param.unit === 'gain') return formatDb(gainToDb(value));
  if (param.unit === 'ratio') return `${signed(fixed(value * 100, 0))} %`;
  if (param.unit === 'db') return formatDb(value);
  if (param.unit === 'bits') return `${figures(value)} bit`;
  if (param.unit === 'octaves') return `${figures(value, 2)} oct`;
  if (param.unit === 'percent') return `${figures(value, 2)} %`;
  if (param.unit === 'degrees') return `${signed(fixed(value, 0))}\u00b0`;
  if (param.unit === 'metres') return `${figures(value)} m`;
  if (param.unit === 'cents') return `${figures(value)} cent`;
  if (param.unit === 'semitones') return `${Number(rounded(value, 3)) > 0 ? '+' : ''}${figures(value)} st`;
  if (param.unit === 'bpm') return `${figures(value, 4)} BPM`;
  if (param.unit === 'count') return figures(value, 5);
  return formatPan(value, param.ends);
}

/** A setting as the rail shows it: "dotted eighth · 489 ms", "66 %", "−6.0 dB", "ping-pong". */
export function formatValue(param: Param, value: ParamValue, context: ValueContext): string {
  if (param.kind === 'toggle') return value === true ? 'on' : 'off';
  if (param.kind === 'choice') return param.options.find((option) => option.id === value)?.label ?? String(value);
  const number = resolveNumber(param, value, context);
  const note = syncedNote(value);
  if (note) return `${noteName(note)} · ${formatNumber(param, number)}`;
  const samples = samplesOf(value);
  if (samples !== null) return `${figures(samples, 6)} samples · ${formatNumber(param, number)}`;
  return formatNumber(param, number);
}

/** A time in all three of its measures. */
export function describeTime(
  ms: number,
  context: ValueContext,
): { note: string; exact: boolean; ms: string; samples: string } {
  const beats = ms / 1000 / secondsPerBeat(context.tempo);
  const note = nearestNote(beats, context.tempo.beatsPerBar);
  const exact = Math.abs(noteBeats(note, context.tempo.beatsPerBar) - beats) < 1e-6;
  return {
    note: noteName(note),
    exact,
    ms: formatMs(ms),
    samples: `${((ms * context.sampleRate) / 1000).toFixed(1)} samples`,
  };
}
