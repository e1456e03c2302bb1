import { channelOfTarget } from '../../core/piece/find';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useShallow } from 'zustand/react/shallow';
import { useRecording } from '../../data/recording';
import { useView } from '../../data/view';
import { useWide } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { ChannelButton } from '../shared/channels/ChannelButton';
import { useChannel, usePiece } from '../studio/StudioProvider';
import { ControllerButton } from '../shared/controller/ControllerButton';
import { HeadTools } from './HeadTools';
import { LanesElsewhere } from './LanesElsewhere';
import { LaneStack, type ChosenPoint } from './LaneStack';
import { HelpButton } from '../shared/shell/HelpButton';
import { LinkButton } from '../shared/links/LinkButton';
import { ThrowButton } from '../shared/throws/ThrowButton';
import { useHits } from '../shared/throws/useHits';
import { DrawButton, type Drawing } from './DrawButton';
import { SnapshotButton } from '../shared/snapshots/SnapshotButton';
import { ModeButton } from './ModeButton';
import { NewLane } from './NewLane';
import { NoLanes } from './NoLanes';
import { PointTools } from './PointTools';
import { ShowButton } from './ShowButton';
import { shownLanes } from './shownLanes';
import { SnapButton } from '../shared/time/SnapButton';
import { StretchTools } from './StretchTools';
import { MovesRails } from './MovesRails';

/** The lanes of a channel stacked under its waveform. */
export function MovesView() {
  const piece = usePiece();
  const wide = useWide();
  const armed = useRecording((recording) => recording.armed);
  const range = useView((view) => view.range);
  const channel = useChannel();
  const track = piece.tracks.find((candidate) => candidate.id === channel);
  const shownBy = useView(useShallow(({ lanesShown, chosenLanes, touched }) => ({ lanesShown, chosenLanes, touched })));
  const all = piece.lanes.filter((lane) => channelOfTarget(lane.target) === channel);
  const lanes = shownLanes(all, shownBy);
  const elsewhere = piece.lanes.length - all.length;
  const [drawing, setDrawing] = useState<Drawing>('off');
  const onHits = useView((view) => view.snap.kind === 'hits');
  const hits = useHits(onHits ? channel : '');
  const hitBeats = useMemo(() => (hits ?? []).map(({ beat }) => beat), [hits]);
  const [chosen, setChosen] = useState<ChosenPoint | null>(null);
  const chosenLane = lanes.find((lane) => lane.id === chosen?.lane) ?? lanes[0];
  return (
    <View style={styles.panes}>
      <View style={styles.view}>
        <View style={styles.head}>
          <View style={styles.title}>
            <Text variant="bodySmall">Moves of</Text>
            <ChannelButton channel={channel} />
          </View>
          {lanes.length > 0 ? <DrawButton drawing={drawing} onChange={setDrawing} /> : null}
          <HeadTools channel={channel} />
          {wide ? null : <HelpButton />}
        </View>
        <ScrollView
          horizontal
          showsHorizontalScrollIndicator={false}
          style={styles.tools}
          contentContainerStyle={styles.row}
        >
          <ModeButton channel={channel} />
          <NewLane channel={channel} onAdded={(lane) => setChosen({ lane, point: 0 })} />
          <ThrowButton channel={channel} />
          <LinkButton channel={channel} />
          <SnapshotButton channel={channel} />
          <ControllerButton channel={channel} />
          {lanes.length > 0 ? <SnapButton /> : null}
          {all.length > 0 || elsewhere > 0 ? <ShowButton channel={channel} lanes={all} shown={lanes.length} /> : null}
        </ScrollView>
        <ScrollView contentContainerStyle={wide ? styles.bodyWide : styles.body}>
          <LaneStack
            track={track}
            lanes={lanes}
            chosen={chosen}
            activeLane={chosenLane?.id}
            onChoose={setChosen}
            drawing={drawing}
            hits={hitBeats}
          />
          {lanes.length === 0 ? (
            <NoLanes
              channel={channel}
              hidden={all.length}
              armed={armed}
              onAdded={(lane) => setChosen({ lane, point: 0 })}
            />
          ) : null}
          <LanesElsewhere channel={channel} />
        </ScrollView>
        {chosenLane && range ? (
          <StretchTools key={`stretch-${chosenLane.id}`} lane={chosenLane} lanes={lanes} range={range} />
        ) : null}
        {chosenLane && !range ? (
          <PointTools
            key={chosenLane.id}
            lane={chosenLane}
            chosen={
              chosen?.lane === chosenLane.id && chosen.point !== null && chosen.point < chosenLane.points.length
                ? chosen.point
                : null
            }
            onChoose={(point) => setChosen({ lane: chosenLane.id, point })}
          />
        ) : null}
      </View>
      {wide ? <MovesRails channel={channel} /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, flexDirection: 'row', minHeight: 0 },
  view: { flex: 1, minWidth: 0, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 16, paddingTop: 8 },
  // On a phone they scroll sideways, which leaves a row more for the lanes.
  tools: { flexGrow: 0, flexShrink: 0 },
  row: { flexDirection: 'row', gap: 8, paddingHorizontal: 16, paddingBottom: 6 },
  title: { flex: 1, minWidth: 0 },
  body: { paddingHorizontal: 12, paddingBottom: 20, gap: 12 },
  bodyWide: { paddingHorizontal: 24, paddingBottom: 24, gap: 12 },
});
