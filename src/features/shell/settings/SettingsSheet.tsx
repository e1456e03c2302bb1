import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../../data/openPiece';
import { keepPreferences, LATENCIES, SAMPLE_RATES, usePreferences, type Preferences } from '../../../data/preferences';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { showFirstSteps } from '../../studio/firstSteps';
import { ThemeSwitch } from '../../shared/shell/ThemeSwitch';
import { AboutSettings } from './AboutSettings';
import { OutputSettings } from './OutputSettings';
import { StorageSettings } from './StorageSettings';
import { reasonOf } from '../../../core/reasonOf';
import { RadioChips } from '../../../ui/RadioChips';

const LATENCY_HINTS: Readonly<Record<Preferences['latency'], string>> = {
  interactive: 'Hands are heard soonest; a busy machine may crackle.',
  balanced: 'A little later, and steadier.',
  playback: 'Latest and steadiest: for listening and printing.',
};

/** How this browser is used: light, sound, keys, what is stored, and what ships with the application. */
export function SettingsSheet() {
  const open = useView((view) => view.sheet === 'settings');
  return (
    <Sheet title="Settings" visible={open} onClose={() => useView.setState({ sheet: null })}>
      <ScrollView style={styles.body}>
        <ThemeSwitch />
        <OutputSettings />
        <LatencySettings />
        <NewPieceSettings />
        <View style={styles.row}>
          <Button icon="command" onPress={() => useView.setState({ sheet: 'commands' })}>
            Commands and keys
          </Button>
          <Button
            icon="compass"
            onPress={() => {
              useView.setState({ sheet: null });
              showFirstSteps().catch((error: unknown) => useOpenPiece.getState().say(reasonOf(error)));
            }}
          >
            Show the first steps
          </Button>
        </View>
        <StorageSettings />
        <AboutSettings />
      </ScrollView>
    </Sheet>
  );
}

function LatencySettings() {
  const latency = usePreferences((preferences) => preferences.latency);
  return (
    <>
      <RadioChips
        name="Latency"
        tone="sea"
        options={LATENCIES.map((one) => ({
          text: one,
          label: `Latency ${one}`,
          chosen: latency === one,
          choose: () => keepPreferences({ latency: one }),
        }))}
      />
      <Text variant="bodySmall">{LATENCY_HINTS[latency]}</Text>
    </>
  );
}

function NewPieceSettings() {
  const rate = usePreferences((preferences) => preferences.newPieceRate);
  return (
    <RadioChips
      name="Sample rate of new pieces"
      tone="sea"
      options={SAMPLE_RATES.map((one) => ({
        text: `${one / 1000} kHz`,
        label: `New pieces at ${one} Hz`,
        chosen: rate === one,
        choose: () => keepPreferences({ newPieceRate: one }),
      }))}
    />
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 18 },
});
