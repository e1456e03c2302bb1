import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { Sheet } from '../../../ui/Sheet';
import { ExportForm } from './ExportForm';
import { ExportCards, useExports } from './ExportList';

/** Writes files from wherever one is: what is written and how, then how far it is and what can be downloaded. */
export function FilesSheet() {
  const open = useView((view) => view.sheet === 'files');
  return (
    <Sheet title="Write files" visible={open} onClose={() => useView.setState({ sheet: null })}>
      {open ? <Files /> : null}
    </Sheet>
  );
}

function Files() {
  const exports = useExports();
  const [started, setStarted] = useState(false);
  if (!started)
    return (
      <ExportForm
        onStart={(order) => {
          exports.start.mutate(order);
          setStarted(true);
        }}
      />
    );
  return (
    <>
      <ScrollView style={styles.body} contentContainerStyle={styles.cards}>
        <ExportCards {...exports} />
      </ScrollView>
      <Button icon="file-plus" style={styles.more} onPress={() => setStarted(false)}>
        Write others
      </Button>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  cards: { gap: 12 },
  more: { alignSelf: 'flex-start', marginTop: 12 },
});
