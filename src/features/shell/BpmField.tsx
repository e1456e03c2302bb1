import { StyleSheet, TextInput } from 'react-native';
import { MAX_BPM, MIN_BPM } from '../../core/music/tempo';
import { useTokens } from '../../ui/theme';
import { FONT_STRONG } from '../../ui/tokens';

interface BpmFieldProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly refused: boolean;
  readonly onChange: (text: string) => void;
  readonly onSubmit: () => void;
}

/** A tempo that is typed. */
export function BpmField({ label, value, placeholder, refused, onChange, onSubmit }: BpmFieldProps) {
  const tokens = useTokens();
  return (
    <TextInput
      aria-label={label}
      value={value}
      placeholder={placeholder}
      placeholderTextColor={tokens.mute}
      onChangeText={onChange}
      onSubmitEditing={onSubmit}
      blurOnSubmit={false}
      inputMode="decimal"
      selectTextOnFocus
      style={[styles.input, { color: tokens.ink, borderColor: refused ? tokens.danger : tokens.line }]}
    />
  );
}

export const BPM_REFUSED = `A tempo lies between ${MIN_BPM} and ${MAX_BPM} BPM.`;

/** The tempo that is typed, or null when it is none. */
export function readBpm(text: string): number | null {
  const bpm = Number(text.replace(',', '.'));
  return bpm >= MIN_BPM && bpm <= MAX_BPM ? bpm : null;
}

const styles = StyleSheet.create({
  input: {
    height: 48,
    width: 120,
    borderWidth: 1.5,
    borderRadius: 10,
    paddingHorizontal: 12,
    fontFamily: FONT_STRONG,
    fontSize: 20,
  },
});
