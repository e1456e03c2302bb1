import { findChannel } from '../../../core/piece/find';
import { channelParams, MAIN } from '../../../core/piece/piece';
import { usePiece } from '../../studio/StudioProvider';
import { ParamRail } from './ParamRail';

interface ChannelRailsProps {
  readonly channel: string;
  /** Spoken before their labels where rails of effects are in view beside them. */
  readonly before?: string;
}

/** The rails of a channel itself: its level and, but for the main output, its pan. */
export function ChannelRails({ channel, before }: ChannelRailsProps) {
  const piece = usePiece();
  const own = findChannel(piece, channel);
  const gain = channel === MAIN ? piece.main.gain : own?.gain;
  const values = [['gain', gain] as const, ['pan', own?.pan] as const];
  return values.map(([id, value]) => {
    if (value === undefined) return null;
    const param = channelParams[id];
    return (
      <ParamRail
        key={id}
        target={{ kind: 'channel', channel, param: id }}
        param={param}
        value={value}
        look="plain"
        spoken={before && `${before}, ${param.label.toLowerCase()}`}
      />
    );
  });
}
