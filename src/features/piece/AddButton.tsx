import { ScrollView, StyleSheet } from 'react-native';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { ReturnChoices } from '../shared/sends/AddReturn';
import { AddTracks } from './AddTracks';

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
          <AddTracks onDone={close} />
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
