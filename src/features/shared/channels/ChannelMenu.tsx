import { useState } from 'react';
import { channelName } from '../../../core/piece/find';
import { IconButton } from '../../../ui/IconButton';
import { usePiece } from '../../studio/StudioProvider';
import { ChannelSheet, kindOf } from './ChannelSheet';

/** Opens what can be done with a track, a return or the main output as a whole. */
export function ChannelMenu({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  return (
    <>
      <IconButton
        icon="more-horizontal"
        label={`More for ${channelName(piece, channel)}, ${kindOf(piece, channel)}`}
        tone="mute"
        onPress={() => setOpen(true)}
      />
      <ChannelSheet channel={channel} open={open} onClose={() => setOpen(false)} />
    </>
  );
}
