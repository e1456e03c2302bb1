import * as z from 'zod';
import { create } from 'zustand';
import { readStored, writeStored } from './browserStorage';

/** Sample rates that a piece can have. */
export const SAMPLE_RATES = [44_100, 48_000, 88_200, 96_000] as const;

/** How much the browser holds back before it puts sound out: less answers hands faster, more bears more load. */
export const LATENCIES = ['interactive', 'balanced', 'playback'] as const;

/** Where sound goes: a device by the browser's id, with the name that it had when it was chosen; empty for the system's. */
const outputSchema = z.object({ id: z.string(), name: z.string() });

const preferencesSchema = z.object({
  output: outputSchema.catch({ id: '', name: '' }),
  latency: z.enum(LATENCIES).catch('interactive'),
  /** Whether beats are clicked while the piece plays. */
  click: z.boolean().catch(false),
  /** Bars that are clicked before playing begins. */
  countInBars: z.literal([0, 1, 2]).catch(0),
  /** Of each kind of effect, the parameters whose rails are pinned to its head. */
  pinned: z.record(z.string(), z.array(z.string())).catch({}),
  newPieceRate: z.literal(SAMPLE_RATES).catch(48_000),
  /** Which of the first steps is shown, from 0; null when they were done or left. */
  firstStep: z.number().int().min(0).nullable().catch(0),
});
export type Preferences = z.infer<typeof preferencesSchema>;

const STORED = 'zephiro.preferences';

/** What this browser keeps of how a person wants to work. */
export const usePreferences = create<Preferences>(() =>
  readStored(STORED, preferencesSchema, preferencesSchema.parse({})),
);

export function keepPreferences(changed: Partial<Preferences>): void {
  usePreferences.setState(changed);
  writeStored(STORED, usePreferences.getState());
}
