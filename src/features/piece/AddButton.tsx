import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { addTrack } from '../../core/piece/edits/channels';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { freeName } from '../../core/piece/freeName';
import { ReturnChoices } from '../shared/sends/AddReturn';
import { useImports } from '../studio/imports';
import { chooseFiles } from '../studio/localFiles';
import { SOUND_FILES } from '../studio/soundFiles';

function addEmptyTrack(): void {
  const { piece, run } = useOpenPiece.getState();
  const id = newId();
  const name = freeName('Track', piece?.tracks.map((track) => track.name) ?? []);
  const track = { id, name, gain: 1, pan: 0, mute: false, solo: false, clips: [], chain: [], sends: [] };
  if (run(addTrack, { track, sounds: {} })) useView.setState({ channel: id, slot: null, clip: null });
}

/** Adds sounds, an empty track or a return. */
export function AddButton() {
  const [open, setOpen] = useState(false);
  const close = (): void => setOpen(false);
  return (
    <>
      <Button icon="plus" label="Add sounds, a track or a return" onPress={() => setOpen(true)}>
        Add
      </Button>
      <Sheet title="Add" visible={open} onClose={close}>
        <ScrollView style={styles.list}>
          <ListItem
            title="Sound files"
            note="WAV, AIFF, FLAC, MP3 or OGG, any number: each becomes a clip on a track of its own. Files can be dropped on the piece, too."
            icon="file-plus"
            onPress={() => {
              chooseFiles(SOUND_FILES, useImports.getState().add);
              close();
            }}
          />
          <ListItem
            title="Empty track"
            note="For prints, for clips of other tracks, for a sound that comes later."
            icon="plus"
            onPress={() => {
              addEmptyTrack();
              close();
            }}
          />
          <Text variant="headlineSmall" style={styles.returns}>
            A return for
          </Text>
          <ReturnChoices onAdded={close} />
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({ list: { maxHeight: 620 }, returns: { marginTop: 12 } });
