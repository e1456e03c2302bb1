import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { SearchField } from '../../ui/SearchField';
import { useWide } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { BlockList } from '../shared/blocks/BlockList';
import { ExportList } from '../shared/files/ExportList';
import { HelpButton } from '../shared/shell/HelpButton';
import { PrintList } from './PrintList';
import { ShelfPieces } from './ShelfPieces';
import { SoundList } from './SoundList';

/** What is kept: prints and sounds of this piece, blocks for any, and all pieces; side by side where there is room. */
export function ShelfView() {
  const wide = useWide();
  const [words, setWords] = useState('');
  return (
    <ScrollView contentContainerStyle={[styles.shelf, wide && styles.shelfWide]}>
      <View style={styles.head}>
        <Text variant="titleLarge" role="heading" aria-level={1} style={wide ? undefined : styles.title}>
          Shelf
        </Text>
        {wide ? <Search words={words} onWords={setWords} /> : <HelpButton />}
      </View>
      {wide ? null : <Search words={words} onWords={setWords} />}
      <View style={wide ? styles.columns : styles.stack}>
        <View style={wide && styles.column}>
          <PrintList words={words} />
          <ExportList />
        </View>
        <View style={wide && styles.column}>
          <SoundList words={words} />
          <View style={styles.gap} />
          <BlockList words={words} />
        </View>
        <View style={wide && styles.column}>
          <ShelfPieces />
        </View>
      </View>
    </ScrollView>
  );
}

function Search({ words, onWords }: { readonly words: string; readonly onWords: (words: string) => void }) {
  return (
    <View style={styles.search}>
      <SearchField
        label="Search prints, sounds and blocks"
        placeholder="Search prints, sounds, blocks"
        words={words}
        onWords={onWords}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  shelf: { padding: 16, gap: 12 },
  shelfWide: { padding: 24, gap: 18 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 24 },
  title: { flex: 1 },
  search: { flexGrow: 1, maxWidth: 420 },
  stack: { gap: 20 },
  columns: { flexDirection: 'row', gap: 32, alignItems: 'flex-start' },
  column: { flex: 1, minWidth: 0 },
  gap: { height: 18 },
});
