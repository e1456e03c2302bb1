import { useState } from 'react';
import { ScrollView } from 'react-native';
import { channelName, channelOfTarget } from '../../../core/piece/find';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { usePiece } from '../../studio/StudioProvider';
import { LinkList } from './LinkList';

/** Opens all links of a channel: of its effects, its sends, its level and pan. */
export function LinkButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const count = piece.links.filter(({ target }) => channelOfTarget(target) === channel).length;
  const name = channelName(piece, channel);
  return (
    <>
      <Button label={`Links of ${name}`} tone="coralInk" onPress={() => setOpen(true)}>
        {count > 0 ? `Links ${count}` : 'Links'}
      </Button>
      <Sheet title={`Links of ${name}`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={{ maxHeight: 640 }}>
          <LinkList channel={channel} />
        </ScrollView>
      </Sheet>
    </>
  );
}
