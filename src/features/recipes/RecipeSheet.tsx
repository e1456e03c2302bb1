import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { makeRandom } from '../../core/dsp/random';
import type { ParamValue, ParamValues } from '../../core/params/param';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../core/params/resolve';
import { contextOf } from '../../core/piece/find';
import type { Piece, Track } from '../../core/piece/piece';
import { RECIPES } from '../../core/recipes/all';
import type { Recipe, Stretch } from '../../core/recipes/recipe';
import { useOpenPiece } from '../../data/openPiece';
import { AnyRail } from '../../ui/AnyRail';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { useHits } from '../throws/useHits';
import { HearRecipe } from './HearRecipe';
import { keepLiked, likedOf } from './liked';
import { hearRecipe, inputOf, makeRecipe } from './recipes';
import { useMaking } from './useMaking';

interface RecipeSheetProps {
  readonly track: Track;
  readonly range: Stretch;
  readonly where: string;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** What can be made of a stretch: chosen from a list, turned to taste, heard, made. */
export function RecipeSheet({ track, range, where, visible, onClose }: RecipeSheetProps) {
  const [chosen, setChosen] = useState<Recipe | null>(null);
  const close = (): void => {
    setChosen(null);
    onClose();
  };
  return (
    <Sheet title={chosen ? chosen.name : `Make of ${track.name}, ${where}`} visible={visible} onClose={close}>
      {visible ? chosen ? <Maker recipe={chosen} track={track} range={range} onBack={() => setChosen(null)} onDone={close} /> : <RecipeList track={track} range={range} onChoose={setChosen} /> : null}
    </Sheet>
  );
}

interface RecipeListProps {
  readonly track: Track;
  readonly range: Stretch;
  readonly onChoose: (recipe: Recipe) => void;
}

/** Those that fit the stretch first; the others say what they lack. */
function RecipeList({ track, range, onChoose }: RecipeListProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const hits = useHits(track.id);
  const input = inputOf(studio, piece, track, range, hits ?? []);
  const all = RECIPES.map((recipe) => ({ recipe, lack: recipe.lacks(input) })).sort((a, b) => Number(a.lack !== null) - Number(b.lack !== null));
  return (
    <ScrollView style={styles.body}>
      {all.map(({ recipe, lack }) => (
        <Tap key={recipe.id} plain label={`${recipe.name} …`} onPress={() => onChoose(recipe)} style={[styles.item, { borderColor: tokens.line }]}>
          <View>
            <Words kind="waterBig" tone={lack === null ? 'plum' : 'mute'}>{recipe.name}</Words>
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
  readonly range: Stretch;
  readonly onBack: () => void;
  readonly onDone: () => void;
}

const initialOf = ({ params }: Recipe): ParamValues => Object.fromEntries(Object.entries(params).map(([id, param]) => [id, param.initial]));

function Maker({ recipe, track, range, onBack, onDone }: MakerProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const hits = useHits(track.id);
  const [values, setValues] = useState<ParamValues>(() => initialOf(recipe));
  const [liked, setLiked] = useState(() => likedOf(recipe));
  const { busy, trouble, doing, sounding, hear } = useMaking();
  const input = inputOf(studio, piece, track, range, hits ?? []);
  const lack = hits === null ? 'Looking for hits …' : recipe.lacks(input);
  const call = { recipe, input, values };
  const set = (id: string, value: ParamValue): void => setValues((before) => ({ ...before, [id]: value }));
  const make = (): Promise<void> => doing(async () => {
    if (!(await makeRecipe(studio, call))) return;
    useOpenPiece.getState().say(`${recipe.name} made. All of it can be changed by hand; one undo takes it away.`);
    onDone();
  });
  return (
    <>
      <ScrollView style={styles.body}>
        <Tap icon="chevron-left" label="Back to all recipes" text="Back" onPress={onBack} style={styles.start} />
        <Words kind="small" style={styles.purpose}>{recipe.purpose}</Words>
        {Object.entries(recipe.params).map(([id, param]) => (
          <View key={id}>
            <AnyRail param={param} value={values[id] ?? param.initial} context={contextOf(piece)} initial={param.initial} onSet={(value) => set(id, value)} />
            <Words kind="small">{param.hint}</Words>
          </View>
        ))}
        <View role="group" aria-label="Variations" style={styles.chips}>
          <Tap icon="shuffle" label="Surprise me" text="Surprise me" onPress={() => setValues(varied(recipe, piece))} />
          <Tap icon="heart" label="Keep this variation" text="Keep" onPress={() => setLiked(keepLiked(recipe, values))} />
          {liked.map((kept, i) => <Tap key={i} label={`Kept variation ${i + 1}`} text={`kept ${i + 1}`} tone="plum" onPress={() => setValues({ ...initialOf(recipe), ...kept })} />)}
          <Tap plain icon="rotate-ccw" label="As it was at first" onPress={() => setValues(initialOf(recipe))} />
        </View>
      </ScrollView>
      {lack ? <Words kind="small" role="status">{lack}</Words> : null}
      {trouble ? <Words kind="small" tone="danger" role="alert">{trouble}</Words> : null}
      <View style={styles.chips}>
        <HearRecipe name={recipe.name} sounding={sounding} disabled={busy || lack !== null} onPress={() => void hear(() => hearRecipe(studio, call), piece.sampleRate)} />
        <Tap filled tone="plum" label={`Make ${recipe.name}`} text={busy ? 'Making …' : 'Make'} disabled={busy || lack !== null} onPress={() => void make()} />
      </View>
    </>
  );
}

/** Values from all over the rails, more often from their middles; levels and choices of what sounds at all stay. */
function varied({ params }: Recipe, piece: Piece): ParamValues {
  const random = makeRandom(Date.now());
  const context = contextOf(piece);
  return Object.fromEntries(Object.entries(params).map(([id, param]) => {
    if (param.kind === 'number' && param.unit === 'gain') return [id, param.initial];
    if (param.kind !== 'number') return [id, fromEngineNumber(param, paramAtPosition(param, random()))];
    const at = paramPosition(param, toEngineNumber(param, param.initial, context));
    const place = Math.min(1, Math.max(0, at + (random() + random() - 1) * 0.55));
    const number = paramAtPosition(param, place);
    return [id, param.unit === 'semitones' || param.unit === 'count' ? Math.round(number) : Number(number.toPrecision(3))];
  }));
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0, paddingVertical: 8, borderWidth: 0, borderBottomWidth: 1, borderRadius: 0 },
  start: { alignSelf: 'flex-start' },
  purpose: { marginVertical: 8 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
