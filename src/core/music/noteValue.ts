import { secondsPerBeat, type Tempo } from './tempo';

export type NoteFeel = 'straight' | 'dotted' | 'triplet';
export type NoteBase = '1/64' | '1/32' | '1/16' | '1/8' | '1/4' | '1/2' | '1/1' | '1 bar' | '2 bars' | '4 bars';
export interface NoteValue {
  readonly base: NoteBase;
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

/** Length of a note value in quarter-note beats. */
export function noteBeats(note: NoteValue, beatsPerBar: number): number {
  const quarters = QUARTERS[note.base] ?? (BARS[note.base] ?? 1) * beatsPerBar;
  return quarters * FEEL_FACTOR[note.feel];
}

export const noteSeconds = (note: NoteValue, tempo: Tempo): number =>
  noteBeats(note, tempo.beatsPerBar) * secondsPerBeat(tempo);

/** The short form that `parseNote` reads back: "1/8d", "1/4t", "2 bars". */
export function noteId(note: NoteValue): string {
  const gap = BARS[note.base] !== undefined && note.feel !== 'straight' ? ' ' : '';
  return `${note.base}${gap}${FEEL_SUFFIX[note.feel]}`;
}

/** The spoken form: "dotted eighth", "quarter triplet", "2 bars". */
export function noteName(note: NoteValue): string {
  if (note.feel === 'dotted') return `dotted ${NAMES[note.base]}`;
  if (note.feel === 'triplet') return `${NAMES[note.base]} triplet`;
  return NAMES[note.base];
}

const feelOf = (text: string): NoteFeel | null => {
  if (text === '' || text === 'straight') return 'straight';
  if (text === 'd' || text === '.' || text === 'dotted') return 'dotted';
  if (text === 't' || text === 'triplet') return 'triplet';
  return null;
};

/** Reads "1/8", "1/8d", "1/8.", "1/4 triplet", "dotted eighth", "2 bars"; null when it is no note value. */
export function parseNote(text: string): NoteValue | null {
  const clean = text.trim().toLowerCase().replace(/\s+/g, ' ');
  const short = /^(1\/(?:64|32|16|8|4|2|1)|[124] bars?) ?(d|\.|dotted|t|triplet|straight)?$/.exec(clean);
  if (short) {
    const head = short[1] ?? '';
    const base = NOTE_BASES.find((id) => id === head || id.replace('bars', 'bar') === head.replace('bars', 'bar'));
    const feel = feelOf(short[2] ?? '');
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
