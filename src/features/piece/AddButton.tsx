import { ScrollView, StyleSheet } from 'react-native';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { addEmptyTrack } from '../shared/channels/channelActions';
import { ReturnChoices } from '../shared/sends/AddReturn';
import { useImports } from '../studio/imports';
import { chooseFiles } from '../studio/localFiles';
import { SOUND_FILES } from '../studio/soundFiles';

/** Adds sounds, an empty track or a return. */
export function AddButton() {
  const open = useView((view) => view.sheet === 'add');
  const close = (): void => useView.setState({ sheet: null });
  return (
    <>
      <Button icon="plus" label="Add sounds, a track or a return" onPress={() => useView.setState({ sheet: 'add' })}>
        Add
      </Button>
      <Sheet title="Add" visible={open} onClose={close}>
        <ScrollView style={styles.list}>
          <ListItem
            title="Sound files"
            note="WAV, AIFF, FLAC, MP3 or OGG, any number, each on a track of its own. They can be dropped on the piece, too."
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
          <Text variant="titleSmall" style={styles.returns}>
            A return, for
          </Text>
          <ReturnChoices onAdded={close} />
        </ScrollView>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({ list: { maxHeight: 620 }, returns: { marginTop: 12 } });
