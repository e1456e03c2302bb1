import { ScrollView, StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../../data/openPiece';
import { keepPreferences, LATENCIES, SAMPLE_RATES, usePreferences, type Preferences } from '../../../data/preferences';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { ChipGroup } from '../../../ui/ChipGroup';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { showFirstSteps } from '../../studio/firstSteps';
import { ThemeSwitch } from '../../shared/shell/ThemeSwitch';
import { AboutSettings } from './AboutSettings';
import { OutputSettings } from './OutputSettings';
import { StorageSettings } from './StorageSettings';
import { reasonOf } from '../../../core/reasonOf';

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
      <ChipGroup role="radiogroup" name="Latency">
        {LATENCIES.map((one) => (
          <Chip
            key={one}
            role="radio"
            label={`Latency ${one}`}
            chosen={latency === one}
            tone="sea"
            onPress={() => keepPreferences({ latency: one })}
          >
            {one}
          </Chip>
        ))}
      </ChipGroup>
      <Text variant="bodySmall">{LATENCY_HINTS[latency]}</Text>
    </>
  );
}

function NewPieceSettings() {
  const rate = usePreferences((preferences) => preferences.newPieceRate);
  return (
    <ChipGroup role="radiogroup" name="Sample rate of new pieces">
      {SAMPLE_RATES.map((one) => (
        <Chip
          key={one}
          role="radio"
          label={`New pieces at ${one} Hz`}
          chosen={rate === one}
          tone="sea"
          onPress={() => keepPreferences({ newPieceRate: one })}
        >
          {`${one / 1000} kHz`}
        </Chip>
      ))}
    </ChipGroup>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 18 },
});
