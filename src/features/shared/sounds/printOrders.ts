import * as z from 'zod';
import type { Hit } from '../../../core/piece/moves/throws';
import type { PrintOrder } from '../../../core/piece/piece';

const tailSchema = z.enum(['silent', 'cut', '1 bar', '2 bars', '4 bars', 'hit']);
export type Tail = z.infer<typeof tailSchema>;

/** Bars that a tail rings; null until it is silent. One to the next hit is counted by that. */
const TAIL_BARS: Readonly<Record<Tail, number | null>> = {
  silent: null,
  cut: 0,
  '1 bar': 1,
  '2 bars': 2,
  '4 bars': 4,
  hit: null,
};

/** What is chosen in the form of a print. */
export const printFormSchema = z.object({
  /** Id of a channel. */
  source: z.string(),
  /** Only picked hits go in, not all of the stretch. */
  picking: z.boolean(),
  /** Indexes among the hits inside the stretch. */
  picked: z.array(z.number()),
  /** Ids of effects that take no part. */
  omitted: z.array(z.string()),
  part: z.enum(['wet', 'mix', 'both']),
  tail: tailSchema,
  goes: z.enum(['shelf', 'track', 'instead']),
});
export type PrintFormValues = z.infer<typeof printFormSchema>;

export const printDefaults = (source: string): PrintFormValues => ({
  source,
  picking: false,
  picked: [],
  omitted: [],
  part: 'wet',
  tail: 'silent',
  goes: 'shelf',
});

export interface PrintMaterial {
  readonly clip: string | null;
  /** The stretch that is printed. */
  readonly whole: { readonly fromBeat: number; readonly toBeat: number };
  /** Hits of the channel that the sheet was opened for, in order. */
  readonly hits: readonly Hit[];
  /** Ids of the source's effects that are on. */
  readonly effects: readonly string[];
}

/** Hits inside a stretch, with a little room before its start for a hit that is on it. */
export const hitsInside = (hits: readonly Hit[], { fromBeat, toBeat }: PrintMaterial['whole']): Hit[] =>
  hits.filter(({ beat }) => beat >= fromBeat - 0.01 && beat < toBeat);

/** The stretches of picked hits, each up to the next hit. */
export const pickedStretches = (
  { hits, whole }: Pick<PrintMaterial, 'hits' | 'whole'>,
  picked: readonly number[],
): { readonly from: number; readonly to: number }[] =>
  hitsInside(hits, whole).flatMap(({ beat }, i) => {
    if (!picked.includes(i)) return [];
    const next = hits.find((other) => other.beat > beat + 1e-6)?.beat ?? whole.toBeat;
    return [{ from: beat, to: Math.min(whole.toBeat, next) }];
  });

/** Where a print goes: instead of its clip only what is of the whole clip. */
export const goesTo = ({ goes, picking }: PrintFormValues, clip: string | null): PrintFormValues['goes'] =>
  goes === 'instead' && (clip === null || picking) ? 'track' : goes;

/** What is kept of a print: without effects there is the plain sound alone. */
export const partOf = ({ part, omitted }: PrintFormValues, effects: readonly string[]): PrintFormValues['part'] =>
  effects.every((id) => omitted.includes(id)) ? 'mix' : part;

/** One order, or two where wet and dry are wanted each by itself; none where no hit is picked. */
export function printOrders(values: PrintFormValues, material: PrintMaterial): PrintOrder[] {
  const { clip, whole, hits, effects } = material;
  const { source, picking, picked, omitted, tail } = values;
  const goes = goesTo(values, clip);
  const part = partOf(values, effects);
  const stretches = picking ? pickedStretches(material, picked) : null;
  if (stretches?.length === 0) return [];
  const used = effects.filter((id) => !omitted.includes(id));
  const fromBeat = stretches?.[0]?.from ?? whole.fromBeat;
  const toBeat = stretches?.[stretches.length - 1]?.to ?? whole.toBeat;
  const next = hits.find(({ beat }) => beat >= toBeat - 1e-6)?.beat;
  const order: PrintOrder = {
    channel: source,
    clip,
    fromBeat,
    toBeat,
    part: part === 'both' ? 'wet' : part,
    tailBars: TAIL_BARS[tail],
    ...(tail === 'hit' && next !== undefined ? { untilBeat: next } : {}),
    ...(stretches ? { hits: stretches } : {}),
    ...(used.length < effects.length ? { effects: used } : {}),
    ...(goes === 'shelf' ? {} : { goes }),
  };
  return part === 'both' ? [order, { ...order, part: 'dry' }] : [order];
}
