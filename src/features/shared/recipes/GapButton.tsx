import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { barsBetween, toBarBeat } from '../../../core/music/grid';
import { tempoOf } from '../../../core/piece/tempoOf';
import { channelName } from '../../../core/piece/find';
import { useView } from '../../../data/view';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { PlayLine } from '../shell/PlayLine';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { lazySheet } from '../shell/lazySheet';
import { useGaps, type Gap } from './useGaps';

const RecipeSheet = lazySheet(async () => (await import('./RecipeSheet')).RecipeSheet);

/** How much before a gap is heard with it, in beats. */
const LEAD_BEATS = 2;

/** Opens the gaps of the piece: each can be heard, and chosen to be filled. */
export function GapButton() {
  return (
    <>
      <Button icon="columns" mode="text" label="Gaps of the piece" onPress={() => useView.setState({ sheet: 'gaps' })}>
        Gaps
      </Button>
      <GapSheet />
    </>
  );
}

export function GapSheet() {
  const open = useView((view) => view.sheet === 'gaps');
  const onClose = (): void => useView.setState({ sheet: null });
  return (
    <Sheet title="Gaps" visible={open} onClose={onClose}>
      {open ? <Gaps onChosen={onClose} /> : null}
    </Sheet>
  );
}

function Gaps({ onChosen }: { readonly onChosen: () => void }) {
  const gaps = useGaps();
  if (gaps.length === 0)
    return (
      <Text variant="bodySmall">
        Nothing is free for a bar or longer. A riser or a bed can still be laid over any stretch: choose one on the
        ruler.
      </Text>
    );
  return (
    <ScrollView style={styles.list}>
      <PlayLine says="Free for a bar or longer. A chosen one can be filled: with a riser, a fall, a bed, the last hit’s echo, or any recipe." />
      {gaps.map((gap) => (
        <GapRow key={`${gap.track}/${gap.start}`} gap={gap} onChosen={onChosen} />
      ))}
    </ScrollView>
  );
}

function GapRow({ gap, onChosen }: { readonly gap: Gap; readonly onChosen: () => void }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [filling, setFilling] = useState(false);
  // Where nothing sounds, what the first track played last can fill it.
  const track = piece.tracks.find(({ id }) => id === gap.track) ?? piece.tracks[0];
  const said = (beat: number): string => {
    const { bar, beat: within } = toBarBeat(beat, tempoOf(piece));
    return `${bar}.${within}`;
  };
  const bars = barsBetween(gap.start, gap.end, tempoOf(piece));
  const where = `${said(gap.start)} to ${said(gap.end)}`;
  const who = gap.track === null ? 'Nothing sounds' : channelName(piece, gap.track);
  const length = `${bars % 1 === 0 ? bars : bars.toFixed(2)} ${bars === 1 ? 'bar' : 'bars'}`;
  const hear = (): void => {
    studio.locate(Math.max(0, gap.start - LEAD_BEATS));
    void studio.play();
  };
  const choose = (): void => {
    const { channel } = useView.getState();
    useView.setState({ range: { start: gap.start, end: gap.end }, clip: null, channel: gap.track ?? channel });
    studio.locate(gap.start);
    onChosen();
  };
  return (
    <View style={styles.row}>
      <Touchable label={`Choose the gap ${where}, ${who}, ${length}`} style={styles.choose} onPress={choose}>
        <Text variant="titleSmall" tone={gap.track === null ? 'sea' : 'ink'}>
          {who}
        </Text>
        <Text variant="bodySmall">{`${where} · ${length}`}</Text>
      </Touchable>
      <IconButton icon="play" label={`Hear the gap ${where}, ${who}`} mode="outlined" onPress={hear} />
      {track ? (
        <Button label={`Fill the gap ${where}, ${who}`} tone="plum" onPress={() => setFilling(true)}>
          Fill …
        </Button>
      ) : null}
      {track ? (
        <RecipeSheet
          track={track}
          range={{ start: gap.start, end: gap.end }}
          where={where}
          visible={filling}
          onClose={() => setFilling(false)}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 560 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  choose: { flex: 1, alignItems: 'flex-start', paddingHorizontal: 0, paddingVertical: 6 },
});
