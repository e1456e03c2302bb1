import { effectOf } from '../effects/catalogue';
import { chainOf, channelName, findClip } from '../piece/find';
import { MAIN, type Piece, type Print, type PrintOrder } from '../piece/piece';
import { planPrint } from './print';

const PART_NAMES = { mix: '', wet: ' wet', dry: '' } as const;

/** Names a print after what it is made of: "Hum, first call · Echo wet", "3 hits of Crates · Reverb". */
export function printName(piece: Piece, order: PrintOrder): string {
  const clip = order.clip ? findClip(piece, order.clip)?.clip.name : undefined;
  const where = order.channel === MAIN ? piece.name : channelName(piece, order.channel);
  const what = order.hits
    ? `${order.hits.length} ${order.hits.length === 1 ? 'hit' : 'hits'} of ${clip ?? where}`
    : (clip ?? where);
  const effects = chainOf(piece, order.channel)
    .filter((slot) => (order.effects ? order.effects.includes(slot.id) : slot.on))
    .map((slot) => effectOf(slot.effect).name);
  const through = (order.part === 'dry' ? '' : effects.join(', ')) || (order.channel === MAIN ? 'mix' : 'dry');
  return `${what} · ${through}${PART_NAMES[order.part]}`.slice(0, 120);
}

function tailText({ untilBeat, tailBars }: PrintOrder): string {
  if (untilBeat !== undefined) return 'to the next hit';
  return tailBars === null ? 'until silent' : `${tailBars} ${tailBars === 1 ? 'bar' : 'bars'}`;
}

/** What the piece keeps of a print. @param made its id and name, the hash of its sound, and when it was made (ISO 8601) */
export function printRecord(
  piece: Piece,
  order: PrintOrder,
  made: Pick<Print, 'id' | 'name' | 'sound' | 'madeAt'>,
): Print {
  const { channel, clip, fromBeat, toBeat, part } = order;
  return {
    ...made,
    startSample: planPrint(piece, order).fromSample,
    sampleRate: piece.sampleRate,
    from: {
      channel,
      channelName: channelName(piece, channel),
      clip,
      fromBeat,
      toBeat,
      part,
      tail: tailText(order),
      bpm: piece.tempo.bpm,
      order,
    },
  };
}
