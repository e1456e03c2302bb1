import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { hitsByRule, type Hit } from '../../../core/piece/moves/throws';
import type { ParamValues } from '../../../core/params/param';
import type { Track } from '../../../core/piece/piece';
import { hitSources, SWELL, swellSettings } from '../../../core/recipes/reverseSwell';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { HitStrip } from '../throws/HitStrip';
import { useHits } from '../throws/useHits';
import { HearRecipe } from './HearRecipe';
import { RecipeRails } from './RecipeRails';
import { hearSwell, makeSwells } from './swells';
import { useMaking } from './useMaking';
import { initialOf, Variations } from './Variations';
import { tempoOf } from '../../../core/piece/tempoOf';

interface SwellSheetProps {
  readonly track: Track;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** Reverse swells into picked hits: the reverb of the hit, reversed, so that it grows into the hit. */
export function SwellSheet({ track, visible, onClose }: SwellSheetProps) {
  return (
    <Sheet title={`Swells into ${track.name}`} visible={visible} onClose={onClose}>
      {visible ? <Hits track={track} onDone={onClose} /> : null}
    </Sheet>
  );
}

function Hits({ track, onDone }: { readonly track: Track; readonly onDone: () => void }) {
  const hits = useHits(track.id);
  if (!hits) return <Text variant="bodySmall">Looking for hits …</Text>;
  if (hits.length === 0)
    return <Text variant="bodySmall">No hits were found in this track. A swell needs one to grow into.</Text>;
  return <Maker track={track} hits={hits} onDone={onDone} />;
}

function Maker({
  track,
  hits,
  onDone,
}: {
  readonly track: Track;
  readonly hits: readonly Hit[];
  readonly onDone: () => void;
}) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [values, setValues] = useState<ParamValues>(() => initialOf(SWELL));
  const [share, setShare] = useState(0);
  const { busy, trouble, refuse, doing, sounding, hear } = useMaking();
  const toggle = (hit: number): void =>
    setChosen((before) => new Set(before.has(hit) ? [...before].filter((other) => other !== hit) : [...before, hit]));
  const settings = swellSettings(values, piece);
  const sources = hitSources(piece, track, hits, [...chosen], values.clear === true ? 'every' : 'chosen');
  const make = (): Promise<void> =>
    doing(async () => {
      setShare(0);
      const made = await makeSwells(studio, piece, track, sources, settings, setShare);
      if (made === 0)
        refuse('The hit before leaves no room for a swell. Pick a hit with some space before it. Nothing was changed.');
      else {
        useOpenPiece
          .getState()
          .say(
            `${made} ${made === 1 ? 'swell' : 'swells'} made, on a track of ${made === 1 ? 'its' : 'their'} own.${made < sources.length ? ` ${sources.length - made} had no room.` : ''}`,
          );
        onDone();
      }
    });
  const tryIt = (): Promise<void> =>
    hear(
      () => hearSwell(studio, piece, sources[0]!, settings),
      piece.sampleRate,
      'The hit before leaves no room for a swell here. Pick one with some space before it.',
    );
  const count = `${chosen.size} ${chosen.size === 1 ? 'swell' : 'swells'}`;
  return (
    <ScrollView style={styles.body}>
      <Text variant="bodySmall">{`${hits.length} hits. Tap those a swell shall grow into.`}</Text>
      <View style={styles.chips}>
        <Button
          label="Pick those after a gap"
          onPress={() =>
            setChosen(
              new Set(
                hits.flatMap((hit, i) => ((i === 0 ? hit.beat > 1 : hit.beat - hits[i - 1]!.beat > 1.5) ? [i] : [])),
              ),
            )
          }
        >
          after a gap
        </Button>
        <Button
          label="Pick the last of 4 bars"
          onPress={() => setChosen(new Set(hitsByRule(hits, { kind: 'phrase', bars: 4 }, tempoOf(piece))))}
        >
          last of 4 bars
        </Button>
        <Button label="Pick none" disabled={chosen.size === 0} onPress={() => setChosen(new Set())}>
          none
        </Button>
      </View>
      <HitStrip hits={hits} chosen={chosen} verb="Swell into" onToggle={toggle} />
      <RecipeRails
        of={SWELL}
        values={values}
        onSet={(id, value) => setValues((before) => ({ ...before, [id]: value }))}
      />
      <Variations of={SWELL} values={values} onSet={setValues} />
      {trouble ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {trouble}
        </Text>
      ) : null}
      <View style={styles.chips}>
        <HearRecipe
          name="the first swell"
          sounding={sounding}
          disabled={busy || chosen.size === 0}
          onPress={() => void tryIt()}
        />
        <Button
          label={`Make ${count}`}
          tone="plum"
          mode="contained"
          disabled={busy || chosen.size === 0}
          onPress={() => void make()}
        >
          {busy ? `Making … ${Math.round(share * 100)} %` : `Make ${count}`}
        </Button>
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingVertical: 8 },
});
