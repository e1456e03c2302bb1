import { StyleSheet, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { cancelPrint, storeAgain, usePrinting, type PrintWork } from '../../studio/printing';

const STATES: Readonly<Record<PrintWork['state'], string>> = {
  printing: 'printing …',
  storing: 'on its way to the Shelf …',
  unsent: 'printed, not stored yet',
  failed: 'it failed',
};

/** Running prints: progress, and a button to stop each; nothing while there are none. */
export function PrintStatus() {
  const works = usePrinting((state) => state.works);
  return works.map((work) => <Work key={work.id} work={work} />);
}

function Work({ work: { id, name, share, state, message } }: { readonly work: PrintWork }) {
  const tokens = useTokens();
  const isGoing = state === 'printing' || state === 'storing';
  return (
    <View
      role="group"
      aria-label={`Print ${name}`}
      style={[styles.status, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      <View style={styles.row}>
        <View style={styles.words} role={isGoing ? 'status' : 'alert'}>
          <Text numberOfLines={1}>{name}</Text>
          <Text variant="bodySmall" tone={isGoing ? 'mute' : 'danger'}>
            {message ?? `${STATES[state]}${state === 'printing' ? ` ${Math.round(share * 100)} %` : ''}`}
          </Text>
        </View>
        {state === 'unsent' ? (
          <Button label={`Store ${name} again`} onPress={() => storeAgain(id)}>
            Try again
          </Button>
        ) : null}
        <Button label={`${isGoing ? 'Stop' : 'Put away'} the print ${name}`} onPress={() => cancelPrint(id)}>
          {isGoing ? 'Stop' : 'Close'}
        </Button>
      </View>
      {isGoing ? (
        <ProgressBar aria-label={`Printing ${name}`} progress={share} color={tokens.plum} style={styles.bar} />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  status: { borderTopWidth: 1, paddingHorizontal: 14, paddingVertical: 4, gap: 4 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  words: { flex: 1, minWidth: 0 },
  bar: { height: 3, borderRadius: 2 },
});
