import { StyleSheet, View } from 'react-native';
import type { ParamValue, ParamValues } from '../../../core/params/param';
import { contextOf } from '../../../core/piece/find';
import type { Recipe } from '../../../core/recipes/recipe';
import { AnyRail } from '../../../ui/AnyRail';
import { Text } from '../../../ui/Text';
import { usePiece } from '../../studio/StudioProvider';

interface RecipeRailsProps {
  readonly of: Pick<Recipe, 'params'>;
  readonly values: ParamValues;
  readonly onSet: (id: string, value: ParamValue) => void;
}

/** The values of a recipe, each with what it does. */
export function RecipeRails({ of, values, onSet }: RecipeRailsProps) {
  const context = contextOf(usePiece());
  return (
    <>
      {Object.entries(of.params).map(([id, param]) => (
        <View key={id} style={styles.value}>
          <AnyRail
            param={param}
            value={values[id] ?? param.initial}
            context={context}
            initial={param.initial}
            onSet={(value) => onSet(id, value)}
          />
          <Text variant="bodySmall">{param.hint}</Text>
        </View>
      ))}
    </>
  );
}

const styles = StyleSheet.create({ value: { marginBottom: 8 } });
