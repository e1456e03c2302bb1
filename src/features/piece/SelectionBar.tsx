import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Surface } from 'react-native-paper';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { clipEnd } from '../../core/piece/clipEdges';
import { copyClip, removeClip } from '../../core/piece/edits/clips';
import { setLoop } from '../../core/piece/edits/channels';
import { channelName, findClip } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import { ClipShape } from './ClipShape';
import { ClipTools } from './ClipTools';
import { NudgeKeys } from './NudgeKeys';
import { OtherTrack } from './OtherTrack';
import { SectionButton } from './SectionButton';
import { newId } from '../../data/newId';
import { Chip } from '../../ui/Chip';
import { lazySheet } from '../shared/shell/lazySheet';

const PrintSheet = lazySheet(async () => (await import('../shared/sounds/PrintSheet')).PrintSheet);
const RecipeSheet = lazySheet(async () => (await import('../shared/recipes/RecipeSheet')).RecipeSheet);
const SwellSheet = lazySheet(async () => (await import('../shared/recipes/SwellSheet')).SwellSheet);
const TreatSheet = lazySheet(async () => (await import('../shared/treat/TreatSheet')).TreatSheet);

/** What can be done with the chosen clip or stretch. */
export function SelectionBar() {
  const piece = usePiece();
  const tokens = useTokens();
  const clipId = useView((view) => view.clip);
  const range = useView((view) => view.range);
  const channel = useView((view) => view.channel);
  const [printing, setPrinting] = useState(false);
  const [treating, setTreating] = useState(false);
  const recipe = useView((view) => view.recipe);
  const make = (id: string | null): void => useView.setState({ recipe: id });
  const [swelling, setSwelling] = useState(false);
  const [shaping, setShaping] = useState(false);
  const { run } = useOpenPiece.getState();
  const rangeInFront = useView((view) => view.rangeInFront);
  const chosenClip = clipId ? findClip(piece, clipId) : undefined;
  if (!chosenClip && !range) return null;
  const found = chosenClip && !(range && rangeInFront) ? chosenClip : undefined;
  const say = (beat: number): string => {
    const { bar, beat: at } = toBarBeat(beat, tempoOf(piece));
    return `${bar}.${at}`;
  };
  const copyAfter = (): void => {
    if (!found) return;
    const { clip, track: on } = found;
    const id = newId();
    if (run(copyClip, { clip: clip.id, start: clipEnd(piece, clip), track: on.id, id })) useView.setState({ clip: id });
  };
  const track = found
    ? found.track
    : channel === MAIN
      ? undefined
      : piece.tracks.find((candidate) => candidate.id === channel);
  // A riser can be laid where a return or the main output is in view; it needs no track but when it is made of one.
  const maker = track ?? piece.tracks[0];
  const stretch = found ? { start: found.clip.start, end: clipEnd(piece, found.clip) } : range;
  const title = found ? found.clip.name : `${say(range!.start)} to ${say(range!.end)}, ${channelName(piece, channel)}`;
  return (
    <Surface
      elevation={0}
      role="toolbar"
      aria-label="Selection"
      style={[styles.bar, { backgroundColor: tokens.card, borderColor: tokens.line }]}
    >
      <View style={styles.titleRow}>
        <Text variant="titleSmall" numberOfLines={1} style={styles.title}>
          {title}
        </Text>
        {chosenClip && range ? (
          <View role="radiogroup" aria-label="Tools for" style={styles.both}>
            <Chip role="radio" dense chosen={!found} onPress={() => useView.setState({ rangeInFront: true })}>
              stretch
            </Chip>
            <Chip
              role="radio"
              dense
              chosen={found !== undefined}
              onPress={() => useView.setState({ rangeInFront: false })}
            >
              clip
            </Chip>
          </View>
        ) : null}
        <IconButton
          icon="x"
          label="Let go of the selection"
          onPress={() => useView.setState({ clip: null, range: null })}
        />
      </View>
      {found && shaping ? <ClipShape clip={found.clip} /> : null}
      <View style={styles.row}>
        {range && !found ? (
          <Button label="Print" tone="plum" mode="contained" onPress={() => setPrinting(true)}>
            Print …
          </Button>
        ) : null}
        {range && !found && maker ? (
          <Button label="Riser over this" tone="plum" onPress={() => make('riser')}>
            Riser …
          </Button>
        ) : null}
        {range && !found && track ? (
          <Button label="Bed over this" tone="plum" onPress={() => make('bed')}>
            Bed …
          </Button>
        ) : null}
        {range && !found && track ? (
          <Button label="Recipes for this" tone="plum" onPress={() => make('')}>
            Make …
          </Button>
        ) : null}
        {range && !found ? <SectionButton beat={range.start} /> : null}
        {range && !found ? <Button onPress={() => run(setLoop, { on: true, ...range })}>Loop this</Button> : null}
        {found ? (
          <>
            <NudgeKeys clip={found.clip} />
            <IconButton icon="copy" label="Copy the clip after itself" mode="outlined" onPress={() => copyAfter()} />
            <OtherTrack clip={found.clip} track={found.track.id} />
            <IconButton
              icon="trash-2"
              label="Remove the clip"
              mode="outlined"
              onPress={() => run(removeClip, { clip: found.clip.id }) && useView.setState({ clip: null })}
            />
          </>
        ) : null}
      </View>
      {found ? (
        <ClipTools
          clip={found.clip}
          track={found.track}
          shaping={shaping}
          onPrint={() => setPrinting(true)}
          onShape={() => setShaping(!shaping)}
          onSwell={() => setSwelling(true)}
          onTreat={() => setTreating(true)}
          onMake={() => make('')}
        />
      ) : null}
      {found && treating ? (
        <TreatSheet clip={found.clip} track={found.track} visible onClose={() => setTreating(false)} />
      ) : null}
      {found && swelling ? <SwellSheet track={found.track} visible onClose={() => setSwelling(false)} /> : null}
      {stretch && maker ? (
        <RecipeSheet
          track={maker}
          range={stretch}
          where={`${say(stretch.start)} to ${say(stretch.end)}`}
          {...(recipe ? { first: recipe } : {})}
          visible={recipe !== null}
          onClose={() => make(null)}
        />
      ) : null}
      <PrintSheet
        visible={printing}
        onClose={() => setPrinting(false)}
        channel={found ? found.track.id : channel}
        clip={found?.clip.id ?? null}
        range={found ? null : range}
      />
    </Surface>
  );
}

const styles = StyleSheet.create({
  bar: { borderTopWidth: 1, paddingHorizontal: 14, paddingBottom: 8 },
  titleRow: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  both: { flexDirection: 'row', gap: 4 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
