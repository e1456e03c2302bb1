import { StyleSheet, View } from 'react-native';
import { TEMPLATES } from '../../../core/piece/templates';
import { ListItem } from '../../../ui/ListItem';
import { Text } from '../../../ui/Text';
import type { Pieces } from './usePieces';

/** Creates a new piece, empty or from a template. */
export function NewPiece({ pieces, onMade }: { readonly pieces: Pieces; readonly onMade?: () => void }) {
  return (
    <View role="group" aria-label="New piece">
      <Text variant="headlineSmall" style={styles.heading}>
        New piece
      </Text>
      {TEMPLATES.map((template) => (
        <ListItem
          key={template.id}
          title={template.name}
          note={template.says}
          label={`New piece: ${template.name}. ${template.says}`}
          icon="plus"
          disabled={pieces.busy}
          onPress={() => pieces.make.mutate(template, onMade ? { onSuccess: onMade } : undefined)}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ heading: { marginTop: 14 } });
