import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { showFirstSteps } from '../../studio/firstSteps';
import { useAddress } from '../useAddress';
import { HelpPicture } from './HelpPicture';
import { HELP } from './helpTexts';
import { reasonOf } from '../../../core/reasonOf';

/** What the view that is open is for: a picture, five lines, and ways to more. */
export function HelpSheet() {
  const open = useView((view) => view.sheet === 'help');
  const view = useAddress()?.view ?? 'piece';
  const { title, purpose, lines } = HELP[view];
  const close = (): void => useView.setState({ sheet: null });
  return (
    <Sheet title={`About ${title}`} visible={open} onClose={close}>
      <ScrollView style={styles.body}>
        <HelpPicture view={view} />
        <Text style={styles.purpose}>{purpose}</Text>
        <View role="list" aria-label={`What can be done in ${title}`} style={styles.lines}>
          {lines.map((line) => (
            <View key={line} role="listitem" style={styles.line}>
              <Text tone="sea" aria-hidden>
                ~
              </Text>
              <Text style={styles.words}>{line}</Text>
            </View>
          ))}
        </View>
        <View style={styles.row}>
          <Button icon="command" onPress={() => useView.setState({ sheet: 'commands' })}>
            All commands and keys
          </Button>
          <Button
            icon="compass"
            onPress={() => {
              close();
              showFirstSteps().catch((error: unknown) => useOpenPiece.getState().say(reasonOf(error)));
            }}
          >
            Show the first steps
          </Button>
          <Button icon="settings" onPress={() => useView.setState({ sheet: 'settings' })}>
            Settings
          </Button>
        </View>
      </ScrollView>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  purpose: { marginTop: 8, marginBottom: 8 },
  lines: { gap: 8 },
  line: { flexDirection: 'row', gap: 10 },
  words: { flex: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 18 },
});
