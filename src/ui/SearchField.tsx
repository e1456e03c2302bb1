import { StyleSheet } from 'react-native';
import { Searchbar } from 'react-native-paper';
import { useTokens } from './theme';
import { RADIUS, TOUCH } from './tokens';

interface SearchFieldProps {
  readonly label: string;
  readonly placeholder: string;
  readonly words: string;
  readonly onWords: (words: string) => void;
}

/** Paper's Searchbar, 44 px high. */
export function SearchField({ label, placeholder, words, onWords }: SearchFieldProps) {
  const tokens = useTokens();
  return (
    <Searchbar
      role="searchbox"
      aria-label={label}
      placeholder={placeholder}
      placeholderTextColor={tokens.mute}
      value={words}
      onChangeText={onWords}
      icon="search"
      searchAccessibilityLabel={`${label}: begin`}
      clearIcon="x"
      clearAccessibilityLabel="Clear the search"
      elevation={0}
      inputStyle={styles.input}
      style={[styles.bar, { backgroundColor: tokens.card, borderColor: tokens.line }]}
    />
  );
}

const styles = StyleSheet.create({
  bar: { height: TOUCH, borderWidth: 1, borderRadius: RADIUS.field },
  input: { minHeight: 0, height: TOUCH - 2, paddingLeft: 0 },
});
