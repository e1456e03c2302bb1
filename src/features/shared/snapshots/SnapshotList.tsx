import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { goalsOf, takeSnapshot } from '../../../core/piece/moves/snapshot';
import { dropSnapshot, keepSnapshot } from '../../../core/piece/edits/snapshots';
import { channelName } from '../../../core/piece/find';
import { MAX_SNAPSHOTS, type Snapshot } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useRecording } from '../../../data/recording';
import { NameField } from '../../../ui/NameField';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { newId } from '../../../data/newId';

/** In beats of a bar of four; bars are counted by the piece. */
type Length = { readonly name: string; readonly beats: number } | { readonly name: string; readonly bars: number };
const STARTS: readonly Length[] = [
  { name: 'at once', beats: 0 },
  { name: 'next beat', beats: 1 },
  { name: 'next bar', bars: 1 },
  { name: 'next 4 bars', bars: 4 },
];
const WAYS: readonly Length[] = [
  { name: 'a step', beats: 0 },
  { name: '1 beat', beats: 1 },
  { name: '1 bar', bars: 1 },
  { name: '2 bars', bars: 2 },
  { name: '4 bars', bars: 4 },
  { name: '8 bars', bars: 8 },
];

/**
 * Takes snapshots of a channel or of the piece, and moves to them: on the grid, over some beats, live or written as
 * moves.
 */
export function SnapshotList({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const armed = useRecording((recording) => recording.armed);
  const [start, setStart] = useState(STARTS[2]!);
  const [way, setWay] = useState(WAYS[0]!);
  const [asMoves, setAsMoves] = useState(armed);
  const { studio } = useStudio();
  const beats = (length: Length): number => ('beats' in length ? length.beats : length.bars * piece.tempo.beatsPerBar);
  const go = (snapshot: Snapshot): void =>
    studio.morph.start({ snapshot, gridBeats: beats(start), overBeats: beats(way), asMoves });
  return (
    <View style={styles.list}>
      {piece.snapshots.length < MAX_SNAPSHOTS ? <Taking channel={channel} /> : null}
      {piece.snapshots.length === 0 ? (
        <Text variant="bodySmall">
          A snapshot keeps every value as it stands at the playhead. Go back to it on the beat, or let the sound travel
          there.
        </Text>
      ) : (
        <>
          <Chips label="Begins" choices={STARTS} chosen={start} onChoose={setStart} />
          <Chips label="Takes" choices={WAYS} chosen={way} onChoose={setWay} />
          <Chip
            role="switch"
            label="Write as moves"
            chosen={asMoves}
            tone="coralInk"
            style={styles.switch}
            onPress={() => setAsMoves(!asMoves)}
          >
            {asMoves ? '∿ written as moves' : 'heard, not written'}
          </Chip>
          {piece.snapshots.map((snapshot) => (
            <SnapshotRow key={snapshot.id} snapshot={snapshot} onGo={() => go(snapshot)} />
          ))}
        </>
      )}
    </View>
  );
}

function Taking({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [whole, setWhole] = useState(false);
  const name = channelName(piece, channel);
  const free = `Tide ${piece.snapshots.length + 1}`;
  const take = (called: string): void =>
    void useOpenPiece
      .getState()
      .run(keepSnapshot, { snapshot: takeSnapshot(piece, whole ? null : channel, studio.beat, newId(), called) });
  return (
    <View style={styles.taking}>
      <View role="radiogroup" aria-label="Snapshot of" style={styles.chips}>
        <Chip role="radio" label={`Snapshot of ${name}`} chosen={!whole} onPress={() => setWhole(false)}>
          {name}
        </Chip>
        <Chip role="radio" label="Snapshot of the whole piece" chosen={whole} onPress={() => setWhole(true)}>
          the whole piece
        </Chip>
      </View>
      <NameField key={free} label="Name of the snapshot" initial={free} action="Take" onName={take} />
    </View>
  );
}

interface ChipsProps {
  readonly label: string;
  readonly choices: readonly Length[];
  readonly chosen: Length;
  readonly onChoose: (choice: Length) => void;
}

function Chips({ label, choices, chosen, onChoose }: ChipsProps) {
  return (
    <View style={styles.taking}>
      <Text variant="bodySmall">{label}</Text>
      <View role="radiogroup" aria-label={label} style={styles.chips}>
        {choices.map((choice) => (
          <Chip
            key={choice.name}
            role="radio"
            label={`${label}: ${choice.name}`}
            chosen={choice === chosen}
            onPress={() => onChoose(choice)}
          >
            {choice.name}
          </Chip>
        ))}
      </View>
    </View>
  );
}

function SnapshotRow({ snapshot, onGo }: { readonly snapshot: Snapshot; readonly onGo: () => void }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const away = goalsOf(piece, snapshot, studio.beat).length;
  const of = snapshot.channel === null ? 'the whole piece' : channelName(piece, snapshot.channel);
  return (
    <>
      <Divider />
      <View style={styles.row}>
        <View style={styles.words}>
          <Text variant="headlineSmall" numberOfLines={1}>
            {snapshot.name}
          </Text>
          <Text
            variant="bodySmall"
            numberOfLines={1}
          >{`${of} · ${away === 0 ? 'stands so now' : `${away} of ${snapshot.values.length} values elsewhere`}`}</Text>
        </View>
        <Button label={`Go to ${snapshot.name}`} tone="coralInk" mode="contained" onPress={onGo}>
          Go
        </Button>
        <IconButton
          icon="x"
          label={`Let go of ${snapshot.name}`}
          tone="mute"
          onPress={() => useOpenPiece.getState().run(dropSnapshot, { id: snapshot.id })}
        />
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  list: { gap: 12 },
  taking: { gap: 6 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  switch: { alignSelf: 'flex-start' },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingTop: 8 },
  words: { flex: 1, minWidth: 0 },
});
