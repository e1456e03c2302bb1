import { ScrollView, StyleSheet, View } from 'react-native';
import { useWide } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { BlockList } from '../shared/blocks/BlockList';
import { HelpButton } from '../shared/shell/HelpButton';
import { ExportList } from '../shared/files/ExportList';
import { ShelfPieces } from './ShelfPieces';
import { PrintList } from './PrintList';
import { SoundList } from './SoundList';

/** What is kept: prints and sounds of this piece, blocks for any, and all pieces. */
export function ShelfView() {
  const wide = useWide();
  return (
    <ScrollView contentContainerStyle={[styles.shelf, wide && styles.wide]}>
      <View style={[styles.column, wide && styles.main]}>
        <View style={styles.head}>
          <Text variant="titleLarge" role="heading" aria-level={1} style={styles.title}>
            Shelf
          </Text>
          {wide ? null : <HelpButton />}
        </View>
        <PrintList />
        <ExportList />
        {wide ? <BlockList /> : <SoundList />}
      </View>
      <View style={[styles.column, wide && styles.side]}>
        {wide ? <SoundList /> : null}
        {wide ? null : <BlockList />}
        <ShelfPieces />
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  shelf: { padding: 16, gap: 20 },
  wide: { flexDirection: 'row', padding: 24, gap: 32 },
  column: { minWidth: 0 },
  head: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  main: { flex: 2 },
  side: { flex: 1 },
});
