import { secondsPerBeat, type Tempo } from './tempo';

export type NoteFeel = 'straight' | 'dotted' | 'triplet';
/** The lengths that have names. */
export type NoteBase = '1/64' | '1/32' | '1/16' | '1/8' | '1/4' | '1/2' | '1/1' | '1 bar' | '2 bars' | '4 bars';
/** Any other number of equal parts of a whole note: "3/16", "5/8". */
export type NoteFraction = `${number}/${number}`;
export interface NoteValue {
  readonly base: NoteBase | NoteFraction;
  readonly feel: NoteFeel;
}

export const NOTE_BASES: readonly NoteBase[] = [
  '1/64',
  '1/32',
  '1/16',
  '1/8',
  '1/4',
  '1/2',
  '1/1',
  '1 bar',
  '2 bars',
  '4 bars',
];
export const NOTE_FEELS: readonly NoteFeel[] = ['straight', 'dotted', 'triplet'];

const QUARTERS: Record<NoteBase, number | null> = {
  '1/64': 1 / 16,
  '1/32': 1 / 8,
  '1/16': 1 / 4,
  '1/8': 1 / 2,
  '1/4': 1,
  '1/2': 2,
  '1/1': 4,
  '1 bar': null,
  '2 bars': null,
  '4 bars': null,
};
const BARS: Partial<Record<NoteBase, number>> = { '1 bar': 1, '2 bars': 2, '4 bars': 4 };
const NAMES: Record<NoteBase, string> = {
  '1/64': 'sixty-fourth',
  '1/32': 'thirty-second',
  '1/16': 'sixteenth',
  '1/8': 'eighth',
  '1/4': 'quarter',
  '1/2': 'half',
  '1/1': 'whole',
  '1 bar': '1 bar',
  '2 bars': '2 bars',
  '4 bars': '4 bars',
};
const FEEL_FACTOR: Record<NoteFeel, number> = { straight: 1, dotted: 1.5, triplet: 2 / 3 };
const FEEL_SUFFIX: Record<NoteFeel, string> = { straight: '', dotted: 'd', triplet: 't' };

/** The parts of a whole note that a fraction may name, and how many of them at most. */
const PARTS = [1, 2, 4, 8, 16, 32, 64];
const MAX_PARTS = 64;

const isNamed = (base: NoteValue['base']): base is NoteBase => Object.hasOwn(QUARTERS, base);

function quartersOf(base: NoteValue['base'], beatsPerBar: number): number {
  if (isNamed(base)) return QUARTERS[base] ?? (BARS[base] ?? 1) * beatsPerBar;
  const [count, parts] = base.split('/').map(Number);
  return (4 * count!) / parts!;
}

/** Length of a note value in quarter-note beats. */
export function noteBeats(note: NoteValue, beatsPerBar: number): number {
  const quarters = quartersOf(note.base, beatsPerBar);
  return quarters * FEEL_FACTOR[note.feel];
}

/** Whether it is counted in bars, and so as long as they are. */
export const isInBars = ({ base }: NoteValue): boolean => isNamed(base) && BARS[base] !== undefined;

export const noteSeconds = (note: NoteValue, tempo: Tempo): number =>
  noteBeats(note, tempo.beatsPerBar) * secondsPerBeat(tempo);

/** The short form that `parseNote` reads: "1/8d", "1/4t", "2 bars". */
export function noteId(note: NoteValue): string {
  const gap = isNamed(note.base) && BARS[note.base] !== undefined && note.feel !== 'straight' ? ' ' : '';
  return `${note.base}${gap}${FEEL_SUFFIX[note.feel]}`;
}

/** The spoken form: "dotted eighth", "quarter triplet", "2 bars". */
export function noteName(note: NoteValue): string {
  const name = isNamed(note.base) ? NAMES[note.base] : `${note.base} note`;
  if (note.feel === 'dotted') return `dotted ${name}`;
  if (note.feel === 'triplet') return `${name} triplet`;
  return name;
}

const feelOf = (text: string): NoteFeel | null => {
  if (text === '' || text === 'straight') return 'straight';
  if (text === 'd' || text === '.' || text === 'dotted') return 'dotted';
  if (text === 't' || text === 'triplet') return 'triplet';
  return null;
};

/** A fraction of a whole note in lowest terms: "2/16" is an eighth. Null for more parts than a fraction may have. */
function fraction(count: number, parts: number): NoteValue['base'] | null {
  let [n, d] = [count, parts];
  while (n % 2 === 0 && d > 1) [n, d] = [n / 2, d / 2];
  return Number.isInteger(n) && n >= 1 && n <= MAX_PARTS && PARTS.includes(d) ? `${n}/${d}` : null;
}

/** Quarter-note beats as a note value, down to a sixty-fourth; null for what is between them. */
function noteOfBeats(beats: number): NoteValue | null {
  const base = fraction(beats * 16, 64);
  return base && { base, feel: 'straight' };
}

/**
 * Reads "1/8", "1/8d", "1/8.", "1/4 triplet", "dotted eighth", "2 bars", any fraction of a whole note ("3/16", "5/8t"),
 * and beats ("2 beats"); null when it is not a note value.
 */
export function parseNote(text: string): NoteValue | null {
  const clean = text.trim().toLowerCase().replace(/\s+/g, ' ');
  const short = /^(1\/(?:64|32|16|8|4|2|1)|[124] bars?) ?(d|\.|dotted|t|triplet|straight)?$/.exec(clean);
  if (short) {
    const head = short[1] ?? '';
    const base = NOTE_BASES.find((id) => id === head || id.replace('bars', 'bar') === head.replace('bars', 'bar'));
    const feel = feelOf(short[2] ?? '');
    return base && feel ? { base, feel } : null;
  }
  const beats = /^(\d{1,2}(?:\.\d{1,4})?) beats?$/.exec(clean);
  if (beats) return noteOfBeats(Number(beats[1]));
  const parts = /^(dotted )?(\d{1,2})\/(\d{1,2})(?: note)? ?(d|\.|dotted|t|triplet|straight)?$/.exec(clean);
  if (parts) {
    const base = fraction(Number(parts[2]), Number(parts[3]));
    const feel = feelOf(parts[1]?.trim() ?? parts[4] ?? '');
    return base && feel ? { base, feel } : null;
  }
  const words = clean.replace(/\bnote\b/g, '').trim();
  for (const base of NOTE_BASES) {
    for (const feel of NOTE_FEELS) {
      if (noteName({ base, feel }) === words || `${NAMES[base]} ${feel}` === words) return { base, feel };
    }
  }
  return null;
}

/** Every note value from 1/64 to 4 bars, shortest first, one for each length (in 4/4 a whole note is a bar). */
export function noteLadder(beatsPerBar: number): readonly NoteValue[] {
  const all = NOTE_BASES.flatMap((base) => NOTE_FEELS.map((feel) => ({ base, feel })));
  const byLength = new Map<string, NoteValue>();
  for (const note of all) byLength.set(noteBeats(note, beatsPerBar).toFixed(6), note);
  return [...byLength.values()].sort((a, b) => noteBeats(a, beatsPerBar) - noteBeats(b, beatsPerBar));
}

/** The note value whose length is nearest in ratio to `beats`. */
export function nearestNote(beats: number, beatsPerBar: number, feel?: NoteFeel): NoteValue {
  let best: NoteValue = { base: '1/4', feel: feel ?? 'straight' };
  let distance = Infinity;
  for (const note of noteLadder(beatsPerBar)) {
    if (feel !== undefined && note.feel !== feel) continue;
    const away = Math.abs(Math.log(noteBeats(note, beatsPerBar) / Math.max(beats, 1e-9)));
    if (away < distance) {
      best = note;
      distance = away;
    }
  }
  return best;
}
