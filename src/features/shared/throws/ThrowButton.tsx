import { useState } from 'react';
import { Button } from '../../../ui/Button';
import { channelName, findChannel } from '../../../core/piece/find';
import { usePiece } from '../../studio/StudioProvider';
import { ThrowSheet } from './ThrowSheet';

/** Opens the throws of a channel that can send. */
export function ThrowButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  if (!findChannel(piece, channel)) return null;
  return (
    <>
      <Button label={`Throws of ${channelName(piece, channel)}`} tone="coralInk" onPress={() => setOpen(true)}>
        Throws
      </Button>
      {open ? <ThrowSheet channel={channel} onClose={() => setOpen(false)} /> : null}
    </>
  );
}
