import { StyleSheet, View } from 'react-native';
import { Icon, TextInput } from 'react-native-paper';
import { IconButton } from './IconButton';
import { useTokens } from './theme';
import { RADIUS, TOUCH } from './tokens';

interface SearchFieldProps {
  readonly label: string;
  readonly placeholder: string;
  readonly words: string;
  readonly onWords: (words: string) => void;
  /** It is typed into at once. */
  readonly focused?: boolean;
  readonly onSubmit?: () => void;
}

/** A field for words to look for. Paper's Searchbar has buttons of 40 px, one of them without use here. */
export function SearchField({ label, placeholder, words, onWords, focused = false, onSubmit }: SearchFieldProps) {
  const tokens = useTokens();
  return (
    <View style={styles.field}>
      <TextInput
        dense
        mode="outlined"
        role="searchbox"
        aria-label={label}
        placeholder={placeholder}
        placeholderTextColor={tokens.mute}
        value={words}
        onChangeText={onWords}
        autoFocus={focused}
        {...(onSubmit && { onSubmitEditing: onSubmit })}
        outlineStyle={styles.outline}
        contentStyle={BESIDE_ICONS}
        style={styles.input}
      />
      <View aria-hidden style={styles.icon}>
        <Icon source="search" size={18} color={tokens.mute} />
      </View>
      {words === '' ? null : (
        <IconButton icon="x" label="Clear the search" tone="mute" style={styles.clear} onPress={() => onWords('')} />
      )}
    </View>
  );
}

/** No style sheet: Paper sets the padding on the element itself, which wins over classes. */
const BESIDE_ICONS = { paddingLeft: 40, paddingRight: TOUCH };

const styles = StyleSheet.create({
  field: { justifyContent: 'center' },
  input: { height: TOUCH },
  outline: { borderRadius: RADIUS.field },
  icon: { position: 'absolute', left: 14 },
  clear: { position: 'absolute', right: 0 },
});
