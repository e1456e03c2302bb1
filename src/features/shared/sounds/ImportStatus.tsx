import { StyleSheet, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { useImports } from '../../studio/imports';

/** Progress of imported sound files, and those that could not be used; nothing while there are none. */
export function ImportStatus() {
  const tokens = useTokens();
  const { now, left, total, failed, cancel, dismiss } = useImports();
  if (!now && failed.length === 0) return null;
  const nth = total - left + 1;
  return (
    <View style={[styles.status, { borderColor: tokens.line, backgroundColor: tokens.card }]}>
      {now ? (
        <>
          <View style={styles.row}>
            <View style={styles.words} role="status">
              <Text numberOfLines={1}>{total > 1 ? `${nth} of ${total} · ${now.name}` : now.name}</Text>
              <Text variant="bodySmall">{now.text}</Text>
            </View>
            <Button label="Stop adding sounds" onPress={cancel}>
              Stop
            </Button>
          </View>
          <ProgressBar aria-label="Sounds added" progress={(nth - 1) / total} color={tokens.sea} style={styles.bar} />
        </>
      ) : null}
      {failed.length > 0 ? (
        <View role="alert" style={styles.row}>
          <View style={styles.words}>
            {failed.map(({ name, reason }, i) => (
              <Text key={i} variant="bodySmall" tone="danger">{`${name}: ${reason}`}</Text>
            ))}
          </View>
          <Button label="Put this away" mode="text" onPress={dismiss}>
            Close
          </Button>
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  status: { borderTopWidth: 1, borderBottomWidth: 1, paddingHorizontal: 14, paddingVertical: 6, gap: 6 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  words: { flex: 1, minWidth: 0 },
  bar: { height: 3, borderRadius: 2 },
});
