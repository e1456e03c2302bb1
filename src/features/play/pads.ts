import { effectOf } from '../../core/effects/catalogue';
import type { ParamValue } from '../../core/params/param';
import { baseValue, chainOf, channelIds, channelName, findChannel, paramOf, slotsIn } from '../../core/piece/find';
import { MAIN, type Piece, type Snapshot, type Target } from '../../core/piece/piece';

/** Something that a pad plays: a parameter that goes to a value and back. */
export interface PlayedPad {
  readonly id: string;
  /** In large letters. */
  readonly name: string;
  /** For a reader: what it does. */
  readonly label: string;
  readonly target: Target;
  readonly value: ParamValue;
  /** The strand of a braid that it takes. */
  readonly strand?: { readonly slot: string; readonly place: number };
}

/** A track opens its sends, one a pad. */
export function throwPads(piece: Piece, track: string | undefined): PlayedPad[] {
  const channel = track === undefined ? undefined : findChannel(piece, track);
  if (!channel) return [];
  return piece.returns.map(({ id, name }) => ({
    id,
    name,
    label: `Throw ${channel.name} into ${name}`,
    target: { kind: 'send', channel: channel.id, to: id },
    value: 1,
  }));
}

/** Everything of the piece that holds sound for ever, but for holds, which have stones. */
export function freezePads(piece: Piece): PlayedPad[] {
  return channelIds(piece).flatMap((channel) =>
    slotsIn(chainOf(piece, channel)).flatMap(({ id, effect }) => {
      const { name, family, holds, params } = effectOf(effect);
      if (family === 'hold') return [];
      return (holds ?? []).flatMap((param): PlayedPad[] => {
        const target: Target = { kind: 'effect', channel, effect: id, param };
        const about = params[param]!;
        const off = baseValue(piece, target) === about.initial;
        const on = about.kind === 'choice' ? about.options[1]!.id : true;
        return [
          {
            id: `${id}-${param}`,
            name: channelName(piece, channel),
            label: `${about.label} ${name} on ${channelName(piece, channel)}`,
            target,
            value: off ? on : about.initial,
          },
        ];
      });
    }),
  );
}

export const mutePads = (piece: Piece): PlayedPad[] =>
  [...piece.tracks, ...piece.returns].flatMap(({ id, name, mute }): PlayedPad[] => {
    const target: Target = { kind: 'channel', channel: id, param: 'mute' };
    return paramOf(piece, target)
      ? [{ id, name, label: mute ? `Open ${name}` : `Mute ${name}`, target, value: !mute }]
      : [];
  });

/** The strands of all braids that play a pattern; a pad takes one while the pattern waits. */
export const strandPads = (piece: Piece): PlayedPad[] =>
  channelIds(piece).flatMap((channel) =>
    slotsIn(chainOf(piece, channel)).flatMap(({ id, strands, values }) =>
      values.plays === 'pattern'
        ? (strands ?? []).map(({ place, name }) => ({
            id: `${id}-${place}`,
            name,
            label: `Take strand ${name} on ${channelName(piece, channel)}`,
            target: { kind: 'effect', channel, effect: id, param: 'taken' },
            value: place,
            strand: { slot: id, place },
          }))
        : [],
    ),
  );

export const snapshotNote = (piece: Piece, { channel }: Snapshot): string =>
  channel === null ? 'the piece' : channelName(piece, channel === MAIN ? MAIN : channel);
