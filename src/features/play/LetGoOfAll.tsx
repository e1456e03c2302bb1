import { StyleSheet } from 'react-native';
import { HoldArea } from '../../ui/HoldArea';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';
import { usePlayControl } from '../shared/commands/playKeys';

/** Ends everything that is played, at the moment it is touched. */
export function LetGoOfAll() {
  const tokens = useTokens();
  const wide = useWide();
  const { studio } = useStudio();
  const letGo = (): void => studio.live.letGoOfAll();
  const key = usePlayControl('letGo', { begin: letGo });
  return (
    <HoldArea
      label="Let go of all"
      onBegin={letGo}
      style={[styles.button, { borderColor: tokens.ink, backgroundColor: tokens.card }]}
    >
      <Text variant="titleSmall" style={styles.text}>
        {wide && key ? `Let go of all · ${key}` : 'Let go of all'}
      </Text>
    </HoldArea>
  );
}

const styles = StyleSheet.create({
  button: {
    flexGrow: 1,
    minHeight: 64,
    borderWidth: 1.5,
    borderRadius: 32,
    paddingHorizontal: 18,
  },
  text: { fontSize: 16 },
});
