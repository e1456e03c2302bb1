import { Fragment, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import type { ParamValues } from '../../../core/params/param';
import type { Track } from '../../../core/piece/piece';
import { RECIPES } from '../../../core/recipes/all';
import type { Recipe, BeatRange } from '../../../core/recipes/recipe';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { useHits } from '../throws/useHits';
import { HearRecipe } from './HearRecipe';
import { RecipeRails } from './RecipeRails';
import { hearRecipe, inputOf, makeRecipe } from './recipes';
import { useMaking } from './useMaking';
import { initialOf, Variations } from './Variations';

interface RecipeSheetProps {
  readonly track: Track;
  readonly range: BeatRange;
  /** The range as bars and beats. */
  readonly where: string;
  /** The recipe it opens with, by its id; else the list of all. */
  readonly first?: string;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** Recipes for a range: chosen from a list, adjusted, auditioned, made. */
export function RecipeSheet({ track, range, where, first, visible, onClose }: RecipeSheetProps) {
  const [picked, setPicked] = useState<Recipe | null | undefined>(undefined);
  const chosen = picked === undefined ? RECIPES.find(({ id }) => id === first) : picked;
  const close = (): void => {
    setPicked(undefined);
    onClose();
  };
  return (
    <Sheet
      title={chosen ? `${chosen.name}, ${where}` : `Make of ${track.name}, ${where}`}
      visible={visible}
      onClose={close}
    >
      {visible ? (
        chosen ? (
          <Maker recipe={chosen} track={track} range={range} onBack={() => setPicked(null)} onDone={close} />
        ) : (
          <RecipeList track={track} range={range} onChoose={setPicked} />
        )
      ) : null}
    </Sheet>
  );
}

const LOOKING = 'Looking for hits …';

interface RecipeListProps {
  readonly track: Track;
  readonly range: BeatRange;
  readonly onChoose: (recipe: Recipe) => void;
}

/** Those that are available for the range first; the others with the reason why not. */
function RecipeList({ track, range, onChoose }: RecipeListProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const hits = useHits(track.id);
  const input = inputOf(studio, piece, track, range, hits ?? []);
  const all = RECIPES.map((recipe) => ({
    recipe,
    lack: recipe.ofHits && hits === null ? LOOKING : recipe.unavailableReason(input),
  })).sort((a, b) => Number(a.lack !== null) - Number(b.lack !== null));
  return (
    <ScrollView style={styles.body}>
      {all.map(({ recipe, lack }) => (
        <Fragment key={recipe.id}>
          <Divider />
          <ListItem
            title={recipe.name}
            note={lack ?? recipe.purpose}
            label={`${recipe.name} …`}
            variant="headlineMedium"
            tone={lack === null ? 'plum' : 'mute'}
            style={styles.item}
            onPress={() => onChoose(recipe)}
          />
        </Fragment>
      ))}
    </ScrollView>
  );
}

interface MakerProps {
  readonly recipe: Recipe;
  readonly track: Track;
  readonly range: BeatRange;
  readonly onBack: () => void;
  readonly onDone: () => void;
}

function Maker({ recipe, track, range, onBack, onDone }: MakerProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const hits = useHits(track.id);
  const [values, setValues] = useState<ParamValues>(() => initialOf(recipe));
  const { busy, trouble, doing, sounding, hear } = useMaking();
  const input = inputOf(studio, piece, track, range, hits ?? []);
  const lack = recipe.ofHits && hits === null ? LOOKING : recipe.unavailableReason(input);
  const call = { recipe, input, values };
  const make = (): Promise<void> =>
    doing(async () => {
      if (!(await makeRecipe(studio, call))) return;
      useOpenPiece.getState().say(`${recipe.name} made. All of it can be changed by hand; one undo takes it away.`);
      onDone();
    });
  return (
    <>
      <ScrollView style={styles.body}>
        <Button label="Back to all recipes" icon="chevron-left" style={styles.start} onPress={onBack}>
          Back
        </Button>
        <Text variant="bodySmall" style={styles.purpose}>
          {recipe.purpose}
        </Text>
        {lack === null && recipe.goal ? <Text role="status">{recipe.goal(input)}</Text> : null}
        <RecipeRails
          of={recipe}
          values={values}
          onSet={(id, value) => setValues((before) => ({ ...before, [id]: value }))}
        />
        <Variations of={recipe} values={values} onSet={setValues} />
      </ScrollView>
      {lack ? (
        <Text variant="bodySmall" role="status">
          {lack}
        </Text>
      ) : null}
      {trouble ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {trouble}
        </Text>
      ) : null}
      <View style={styles.chips}>
        <HearRecipe
          name={recipe.name}
          sounding={sounding}
          disabled={busy || lack !== null}
          onPress={() => void hear(() => hearRecipe(studio, call), piece.sampleRate)}
        />
        <Button
          label={`Make ${recipe.name}`}
          tone="plum"
          mode="contained"
          disabled={busy || lack !== null}
          onPress={() => void make()}
        >
          {busy ? 'Making …' : 'Make'}
        </Button>
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  item: {
    alignItems: 'flex-start',
    paddingHorizontal: 0,
    paddingVertical: 8,
    borderWidth: 0,
    borderRadius: 0,
  },
  start: { alignSelf: 'flex-start' },
  purpose: { marginVertical: 8 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
