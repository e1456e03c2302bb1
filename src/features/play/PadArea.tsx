import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { playGrid } from '../../core/piece/playGrid';
import type { Snapshot } from '../../core/piece/piece';
import { useRecording } from '../../data/recording';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { AddReturn } from '../shared/sends/AddReturn';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { freezePads, mutePads, snapshotNote, strandPads, throwPads, type PlayedPad } from './pads';
import { PadSheet } from './PadSheet';
import { MAX_PADS } from '../shared/commands/playKeys';
import { usePlayState, type PadKind } from './playState';
import { Ring, RingPad } from './RingPad';

export const KIND_NAMES: Readonly<Record<PadKind, string>> = {
  throws: 'Throws',
  freezes: 'Freezes',
  mutes: 'Mutes',
  strands: 'Strands',
  snapshots: 'Snapshots',
};

const NOTHING: Readonly<Record<PadKind, string>> = {
  throws: 'A return is what you throw into.',
  freezes: 'Nothing here can freeze: an echo or a reverb can.',
  mutes: 'There are no tracks yet.',
  strands: 'A braid that plays a pattern has strands to take.',
  snapshots: 'Take a snapshot in Moves, and it is a pad here.',
};

interface PadAreaProps {
  /** Side by side, or one above another. */
  readonly across: boolean;
  readonly most: number;
}

/** What is played in the middle: throws, freezes, mutes or snapshots, behind one switch. */
export function PadArea({ across, most }: PadAreaProps) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const [page, setPage] = useState(0);
  const { pads: kind, grid, latched, thrown } = usePlayState();
  const track = piece.tracks.find(({ id }) => id === thrown) ?? piece.tracks[0];
  const played: readonly PlayedPad[] =
    kind === 'throws'
      ? throwPads(piece, track?.id)
      : kind === 'freezes'
        ? freezePads(piece)
        : kind === 'mutes'
          ? mutePads(piece)
          : kind === 'strands'
            ? strandPads(piece)
            : [];
  const all: readonly (PlayedPad | Snapshot)[] = kind === 'snapshots' ? piece.snapshots : played;
  const atOnce = Math.min(most, MAX_PADS);
  const perPage = all.length > atOnce ? atOnce - 1 : atOnce;
  const pages = Math.max(1, Math.ceil(all.length / perPage));
  const first = (page % pages) * perPage;
  const shown = all.slice(first, first + perPage);
  return (
    <View role="group" aria-label={KIND_NAMES[kind]} style={[styles.area, across && styles.areaAcross]}>
      <Touchable
        label={`Pads: ${KIND_NAMES[kind]}`}
        mode="outlined"
        style={[styles.kind, { maxWidth: across ? 180 : 112 }]}
        onPress={() => setOpen(true)}
      >
        <Text variant="titleSmall" style={styles.kindName} numberOfLines={1}>
          {KIND_NAMES[kind]} ▾
        </Text>
        {kind === 'throws' && track ? (
          <Text style={styles.from} numberOfLines={1}>
            {track.name}
          </Text>
        ) : null}
      </Touchable>
      <View style={[styles.pads, across && styles.padsAcross]}>
        {shown.map((pad, i) =>
          'target' in pad ? (
            <RingPad key={pad.id} pad={pad} index={i} grid={grid} latches={latched.includes(kind)} />
          ) : (
            <SnapshotRing key={pad.id} snapshot={pad} index={i} grid={grid} />
          ),
        )}
        {pages > 1 ? (
          <Touchable
            label={`More pads, page ${(page % pages) + 1} of ${pages}`}
            style={styles.more}
            onPress={() => setPage(page + 1)}
          >
            <Text>{`${(page % pages) + 1} / ${pages} ›`}</Text>
          </Touchable>
        ) : null}
        {kind === 'throws' && shown.length === 0 ? <AddReturn /> : null}
        {shown.length === 0 ? (
          <Text variant="bodyMedium" tone="mute" style={styles.nothing}>
            {NOTHING[kind]}
          </Text>
        ) : null}
      </View>
      <PadSheet open={open} onClose={() => setOpen(false)} />
    </View>
  );
}

interface SnapshotRingProps {
  readonly snapshot: Snapshot;
  readonly index: number;
  readonly grid: string;
}

function SnapshotRing({ snapshot, index, grid }: SnapshotRingProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [down, setDown] = useState(false);
  const go = (): void => {
    setDown(true);
    const { armed, playing } = useRecording.getState();
    studio.morph.start({
      snapshot,
      gridBeats: playGrid(piece, grid, studio.beat),
      overBeats: 0,
      asMoves: armed && playing,
    });
  };
  return (
    <Ring
      label={`Go to snapshot ${snapshot.name} of ${snapshotNote(piece, snapshot)}`}
      name={snapshot.name}
      index={index}
      down={down}
      onBegin={go}
      onEnd={() => setDown(false)}
    />
  );
}

const styles = StyleSheet.create({
  area: { alignItems: 'center', gap: 8 },
  areaAcross: { flexDirection: 'row', alignItems: 'center', gap: 14 },
  kind: { minHeight: 48, paddingHorizontal: 8, alignSelf: 'center' },
  kindName: { fontSize: 15 },
  from: { fontSize: 15, lineHeight: 17 },
  pads: { gap: 8, alignItems: 'center' },
  padsAcross: { flexDirection: 'row', gap: 14, flex: 1 },
  more: { minHeight: 64, minWidth: 64 },
  nothing: { maxWidth: 110, textAlign: 'center', fontSize: 15, lineHeight: 19 },
});
