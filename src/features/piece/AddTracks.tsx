import { ListItem } from '../../ui/ListItem';
import { addEmptyTrack } from '../shared/channels/channelActions';
import { useImports } from '../studio/imports';
import { chooseFiles } from '../studio/localFiles';
import { SOUND_FILES } from '../studio/soundFiles';

/** The ways to get a track: from sound files, or empty. */
export function AddTracks({ onDone }: { readonly onDone?: () => void }) {
  return (
    <>
      <ListItem
        title="Sound files"
        note="WAV, AIFF, FLAC, MP3 or OGG, any number, each on a track of its own. They can be dropped on the piece, too."
        icon="file-plus"
        onPress={() => {
          chooseFiles(SOUND_FILES, useImports.getState().add);
          onDone?.();
        }}
      />
      <ListItem
        title="Empty track"
        note="For prints, for clips of other tracks, for a sound that comes later."
        icon="plus"
        onPress={() => {
          addEmptyTrack();
          onDone?.();
        }}
      />
    </>
  );
}
