import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import type { ParamValues } from '../../core/params/param';
import type { Track } from '../../core/piece/piece';
import { RECIPES } from '../../core/recipes/all';
import type { Recipe, BeatRange } from '../../core/recipes/recipe';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { useHits } from '../throws/useHits';
import { HearRecipe } from './HearRecipe';
import { RecipeRails } from './RecipeRails';
import { hearRecipe, inputOf, makeRecipe } from './recipes';
import { useMaking } from './useMaking';
import { initialOf, Variations } from './Variations';

interface RecipeSheetProps {
  readonly track: Track;
  readonly range: BeatRange;
  /** The stretch as bars and beats. */
  readonly where: string;
  /** The recipe it opens with, by its id; else the list of all. */
  readonly first?: string;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** What can be made of a stretch: chosen from a list, turned to taste, heard, made. */
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

interface RecipeListProps {
  readonly track: Track;
  readonly range: BeatRange;
  readonly onChoose: (recipe: Recipe) => void;
}

/** Those that fit the stretch first; the others say what they lack. */
function RecipeList({ track, range, onChoose }: RecipeListProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const hits = useHits(track.id);
  const input = inputOf(studio, piece, track, range, hits ?? []);
  const all = RECIPES.map((recipe) => ({ recipe, lack: recipe.unavailableReason(input) })).sort(
    (a, b) => Number(a.lack !== null) - Number(b.lack !== null),
  );
  return (
    <ScrollView style={styles.body}>
      {all.map(({ recipe, lack }) => (
        <Tap
          key={recipe.id}
          plain
          label={`${recipe.name} …`}
          onPress={() => onChoose(recipe)}
          style={[styles.item, { borderColor: tokens.line }]}
        >
          <View>
            <Words kind="waterBig" tone={lack === null ? 'plum' : 'mute'}>
              {recipe.name}
            </Words>
            <Words kind="small">{lack ?? recipe.purpose}</Words>
          </View>
        </Tap>
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
  const lack = recipe.ofHits && hits === null ? 'Looking for hits …' : recipe.unavailableReason(input);
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
        <Tap icon="chevron-left" label="Back to all recipes" text="Back" onPress={onBack} style={styles.start} />
        <Words kind="small" style={styles.purpose}>
          {recipe.purpose}
        </Words>
        <RecipeRails
          of={recipe}
          values={values}
          onSet={(id, value) => setValues((before) => ({ ...before, [id]: value }))}
        />
        <Variations of={recipe} values={values} onSet={setValues} />
      </ScrollView>
      {lack ? (
        <Words kind="small" role="status">
          {lack}
        </Words>
      ) : null}
      {trouble ? (
        <Words kind="small" tone="danger" role="alert">
          {trouble}
        </Words>
      ) : null}
      <View style={styles.chips}>
        <HearRecipe
          name={recipe.name}
          sounding={sounding}
          disabled={busy || lack !== null}
          onPress={() => void hear(() => hearRecipe(studio, call), piece.sampleRate)}
        />
        <Tap
          filled
          tone="plum"
          label={`Make ${recipe.name}`}
          text={busy ? 'Making …' : 'Make'}
          disabled={busy || lack !== null}
          onPress={() => void make()}
        />
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
    borderBottomWidth: 1,
    borderRadius: 0,
  },
  start: { alignSelf: 'flex-start' },
  purpose: { marginVertical: 8 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
