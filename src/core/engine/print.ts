import { beatsFrom, beatsToSamples } from '../music/tempo';
import { tempoOf } from '../piece/tempoOf';
import { chainOf, findClip } from '../piece/find';
import { MAIN, type Piece, type PrintOrder } from '../piece/piece';
import type { Listening } from './listening';
import { compilePlan } from './compilePlan';
import type { Plan } from './plan';
import type { Tail } from './render';
import { barsLater } from '../music/grid';

export interface PrintJob {
  readonly plan: Plan;
  readonly fromSample: number;
  readonly toSample: number;
  readonly tail: Tail;
  readonly listening: Listening | undefined;
}

/** An order for one whole clip. */
export function clipOrder(
  piece: Piece,
  clipId: string,
  part: PrintOrder['part'],
  tailBars: number | null,
): PrintOrder | null {
  const found = findClip(piece, clipId);
  if (!found) return null;
  const { track, clip } = found;
  const toBeat = clip.start + beatsFrom(clip.start, clip.lengthSeconds, tempoOf(piece));
  return { channel: track.id, clip: clip.id, fromBeat: clip.start, toBeat, part, tailBars };
}

/** A hit is cut out so shortly before it begins, and so shortly before the next one does. */
const BEFORE_HIT_SECONDS = 0.002;

/**
 * Works an order out: only the chosen material enters, through the channel's chain with its moves,
 * before the channel's level and pan, so that the print laid on a like track sounds as the original did.
 * With several effects, `wet` takes the dry sound out of the last one that is on.
 */
export function planPrint(piece: Piece, order: PrintOrder): PrintJob {
  const chosen = order.effects ? withEffects(piece, order.channel, new Set(order.effects)) : piece;
  const tempo = tempoOf(piece);
  const at = (beat: number): number => beatsToSamples(beat, tempo, piece.sampleRate);
  const early = order.hits ? Math.round(BEFORE_HIT_SECONDS * piece.sampleRate) : 0;
  const fromSample = Math.max(0, at(order.fromBeat) - early);
  const toSample = at(order.toBeat) - early;
  const hits = order.hits?.map(({ from, to }) => ({
    fromSample: Math.max(0, at(from) - early),
    toSample: at(to) - early,
  }));
  return {
    plan: compilePlan(chosen, { channel: order.channel, clip: order.clip, fromSample, toSample, hits }),
    fromSample,
    toSample,
    tail: tailOf(order, tempo, piece.sampleRate, toSample),
    listening: listeningOf(chosen, order),
  };
}

function withEffects(piece: Piece, channel: string, used: ReadonlySet<string>): Piece {
  const change = <Channel extends { readonly id: string; readonly chain: Piece['main']['chain'] }>(
    one: Channel,
  ): Channel =>
    one.id === channel ? { ...one, chain: one.chain.map((slot) => ({ ...slot, on: used.has(slot.id) })) } : one;
  return {
    ...piece,
    tracks: piece.tracks.map(change),
    returns: piece.returns.map(change),
    main: channel === MAIN ? { ...piece.main, chain: change({ id: MAIN, chain: piece.main.chain }).chain } : piece.main,
  };
}

function tailOf(
  { tailBars, untilBeat, toBeat }: PrintOrder,
  tempo: ReturnType<typeof tempoOf>,
  sampleRate: number,
  toSample: number,
): Tail {
  const secondsUntil = (beat: number): number =>
    Math.max(0, beatsToSamples(beat, tempo, sampleRate) - toSample) / sampleRate;
  if (untilBeat !== undefined) return { kind: 'seconds', seconds: secondsUntil(untilBeat) };
  return tailBars === null
    ? { kind: 'silent' }
    : { kind: 'seconds', seconds: secondsUntil(barsLater(toBeat, tailBars, tempo)) };
}

function listeningOf(piece: Piece, { channel, part }: PrintOrder): Listening | undefined {
  if (part === 'dry') return { channel, slot: null, hear: 'dry', matched: false };
  const last = [...chainOf(piece, channel)].reverse().find((slot) => slot.on);
  return part === 'wet' && last ? { channel, slot: last.id, hear: 'wet', matched: false } : undefined;
}
