import { beatsFrom, beatsToSamples, bpmAt } from '../music/tempo';
import { tempoOf } from '../piece/tempoOf';
import { chainOf, findClip } from '../piece/find';
import type { Piece } from '../piece/piece';
import type { Listening } from './engine';
import { compilePlan, type Plan } from './plan';
import type { Tail } from './render';

/** What shall be printed: a clip, or a stretch of a track. */
export interface PrintOrder {
  readonly channel: string;
  readonly clip: string | null;
  readonly fromBeat: number;
  readonly toBeat: number;
  /** `mix` keeps the dry sound, `wet` leaves it out. */
  readonly part: 'mix' | 'wet';
  /** Bars to ring, or until silent. */
  readonly tailBars: number | null;
}

export interface PrintJob {
  readonly plan: Plan;
  readonly fromSample: number;
  readonly toSample: number;
  readonly tail: Tail;
  readonly listening: Listening | undefined;
}

/** An order for one whole clip. */
export function clipOrder(piece: Piece, clipId: string, part: 'mix' | 'wet', tailBars: number | null): PrintOrder | null {
  const found = findClip(piece, clipId);
  if (!found) return null;
  const { track, clip } = found;
  const toBeat = clip.start + beatsFrom(clip.start, clip.lengthSeconds, tempoOf(piece));
  return { channel: track.id, clip: clip.id, fromBeat: clip.start, toBeat, part, tailBars };
}

/**
 * Works an order out: only the chosen material enters, through the track's chain with its moves,
 * before the track's level and pan, so that the print laid on a like track sounds as the original did.
 * With several effects, `wet` takes the dry sound out of the last one that is on.
 */
export function planPrint(piece: Piece, order: PrintOrder): PrintJob {
  const tempo = tempoOf(piece);
  const fromSample = beatsToSamples(order.fromBeat, tempo, piece.sampleRate);
  const toSample = beatsToSamples(order.toBeat, tempo, piece.sampleRate);
  const last = [...chainOf(piece, order.channel)].reverse().find((slot) => slot.on);
  const bar = (tempo.beatsPerBar * 60) / bpmAt(order.toBeat, tempo);
  return {
    plan: compilePlan(piece, { channel: order.channel, clip: order.clip, fromSample, toSample }),
    fromSample,
    toSample,
    tail: order.tailBars === null ? { kind: 'silent' } : { kind: 'seconds', seconds: order.tailBars * bar },
    listening: order.part === 'wet' && last ? { channel: order.channel, slot: last.id, hear: 'wet', matched: false } : undefined,
  };
}
