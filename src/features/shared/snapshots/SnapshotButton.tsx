import { useState } from 'react';
import { ScrollView } from 'react-native';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { usePiece } from '../../studio/StudioProvider';
import { SnapshotList } from './SnapshotList';

/** Opens the snapshots of the piece. */
export function SnapshotButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const count = piece.snapshots.length;
  return (
    <>
      <Button label="Snapshots" tone="coralInk" onPress={() => setOpen(true)}>
        {count > 0 ? `Snapshots ${count}` : 'Snapshots'}
      </Button>
      <Sheet title="Snapshots" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={{ maxHeight: 640 }}>
          <SnapshotList channel={channel} />
        </ScrollView>
      </Sheet>
    </>
  );
}
