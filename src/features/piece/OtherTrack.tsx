import { channelOfTarget } from '../../core/piece/find';
import { useState } from 'react';
import { ScrollView } from 'react-native';
import { moveClip } from '../../core/piece/edits/clips';
import type { Clip } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { usePiece } from '../studio/StudioProvider';

/** Moves a clip to another track, with the moves that travel with it. */
export function OtherTrack({ clip, track }: { readonly clip: Clip; readonly track: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const others = piece.tracks.filter(({ id }) => id !== track);
  const travelling = piece.lanes.filter((lane) => lane.travels && channelOfTarget(lane.target) === track).length;
  return (
    <>
      <IconButton
        icon="corner-right-down"
        label="Move the clip to another track"
        mode="outlined"
        disabled={others.length === 0}
        onPress={() => setOpen(true)}
      />
      <Sheet title={`${clip.name} to`} visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={{ maxHeight: 420 }}>
          {others.map(({ id, name }) => (
            <ListItem
              key={id}
              title={name}
              label={`Move to ${name}`}
              style={{ alignItems: 'flex-start', paddingHorizontal: 0 }}
              onPress={() =>
                useOpenPiece.getState().run(moveClip, { clip: clip.id, start: clip.start, track: id }) && setOpen(false)
              }
            />
          ))}
        </ScrollView>
        {travelling > 0 ? (
          <Text variant="bodySmall">Moves that travel go along where the same parameter is; the others stay here.</Text>
        ) : null}
      </Sheet>
    </>
  );
}
