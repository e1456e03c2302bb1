import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { makeRandom } from '../../../core/dsp/random';
import type { ParamValues } from '../../../core/params/param';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../../core/params/resolve';
import { contextOf } from '../../../core/piece/find';
import type { Piece } from '../../../core/piece/piece';
import type { Recipe } from '../../../core/recipes/recipe';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { usePiece } from '../../studio/StudioProvider';
import { keepLiked, likedOf, type Varied } from './liked';

interface VariationsProps {
  readonly of: Varied;
  readonly values: ParamValues;
  readonly onSet: (values: ParamValues) => void;
}

export const initialOf = ({ params }: Pick<Recipe, 'params'>): ParamValues =>
  Object.fromEntries(Object.entries(params).map(([id, param]) => [id, param.initial]));

/** A random variation of a recipe, the liked ones, and the original. */
export function Variations({ of, values, onSet }: VariationsProps) {
  const piece = usePiece();
  const [liked, setLiked] = useState(() => likedOf(of));
  return (
    <View role="group" aria-label="Variations" style={styles.chips}>
      <Button icon="shuffle" onPress={() => onSet(varied(of, piece))}>
        Surprise me
      </Button>
      <Button label="Keep this variation" icon="heart" onPress={() => setLiked(keepLiked(of, values))}>
        Keep
      </Button>
      {liked.map((kept, i) => (
        <Button
          key={i}
          label={`Kept variation ${i + 1}`}
          tone="plum"
          onPress={() => onSet({ ...initialOf(of), ...kept })}
        >{`kept ${i + 1}`}</Button>
      ))}
      <IconButton icon="rotate-ccw" label="As it was at first" onPress={() => onSet(initialOf(of))} />
    </View>
  );
}

/** Random values, more often from the middles of the rails; levels are kept. */
function varied({ params }: Varied, piece: Piece): ParamValues {
  const random = makeRandom(Date.now());
  const context = contextOf(piece);
  return Object.fromEntries(
    Object.entries(params).map(([id, param]) => {
      if (param.kind === 'number' && param.unit === 'gain') return [id, param.initial];
      if (param.kind !== 'number') return [id, fromEngineNumber(param, paramAtPosition(param, random()))];
      const at = paramPosition(param, toEngineNumber(param, param.initial, context));
      const place = Math.min(1, Math.max(0, at + (random() + random() - 1) * 0.55));
      const number = paramAtPosition(param, place);
      return [
        id,
        param.unit === 'semitones' || param.unit === 'count' ? Math.round(number) : Number(number.toPrecision(3)),
      ];
    }),
  );
}

const styles = StyleSheet.create({ chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 } });
