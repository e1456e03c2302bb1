import { channelOfTarget } from '../../core/piece/find';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { setSwitch } from '../../core/piece/edits/channels';
import { moveTrack } from '../../core/piece/edits/tracks';
import { MAIN, type Return, type Track } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { SortableList } from '../../ui/SortableList';
import { Touchable } from '../../ui/Touchable';
import { useTokens, useWide } from '../../ui/theme';
import { ChannelSheet } from '../shared/channels/ChannelSheet';
import { useDropTargets } from '../shared/sounds/FileDrop';
import { ClipLens } from '../shared/time/ClipLens';
import { ClipRow } from '../shared/time/ClipRow';
import { Playhead } from '../shared/time/Playhead';
import { PieceButton } from '../shared/pieces/PieceButton';
import { TimeRuler } from '../shared/time/TimeRuler';
import { TimeScroll } from '../shared/time/TimeScroll';
import { useTimeScale } from '../shared/time/useTimeScale';
import { ZoomButtons } from '../shared/time/ZoomButtons';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { HelpButton } from '../shared/shell/HelpButton';
import { HistoryButton } from './HistoryButton';
import { ImportStatus } from '../shared/sounds/ImportStatus';
import { AddButton } from './AddButton';
import { MoreButton } from './MoreButton';
import { LevelBars } from './LevelBars';
import { GapButton } from '../shared/recipes/GapButton';
import { SelectionBar } from './SelectionBar';
import { SendMatrix } from '../shared/sends/SendMatrix';
import { useRovingFocus } from '../../ui/rovingFocus';
import { EmptyLane } from './EmptyLane';
import { NoTracks } from './NoTracks';

const ROW = 84;

/**
 * Tracks with their clips along time.
 * @param side what is shown beside them on a wide screen: the chosen channel
 */
export function PieceView({ side }: { readonly side: ReactNode }) {
  const piece = usePiece();
  const wide = useWide();
  const tokens = useTokens();
  return (
    <View style={styles.panes}>
      <View style={styles.piece}>
        <Head />
        <ImportStatus />
        <MissingSounds />
        <ScrollView style={styles.scroll} contentContainerStyle={styles.scrollContent}>
          <Tracks />
          {wide && piece.tracks.length > 0 ? <SendMatrix /> : null}
        </ScrollView>
        <SelectionBar />
        <ClipLens />
      </View>
      {wide ? <View style={[styles.side, { borderColor: tokens.line }]}>{side}</View> : null}
    </View>
  );
}

function Head() {
  const piece = usePiece();
  const wide = useWide();
  const tools = useRef<View>(null);
  useRovingFocus(tools);
  return (
    <View ref={tools} role="toolbar" aria-label="Tools of the piece" style={styles.head}>
      <PieceButton />
      {wide ? (
        <>
          <ZoomButtons />
          {piece.tracks.length > 0 ? <GapButton /> : null}
          <HistoryButton />
          <Button icon="download" label="Write files" onPress={() => useView.setState({ sheet: 'files' })}>
            Files
          </Button>
        </>
      ) : null}
      <AddButton />
      {wide ? null : <HelpButton />}
      {wide ? null : <MoreButton hasTracks={piece.tracks.length > 0} />}
    </View>
  );
}

function MissingSounds() {
  const { missing, studio } = useStudio();
  if (missing.size === 0) return null;
  return (
    <View role="alert" style={styles.missing}>
      <Text
        variant="bodySmall"
        tone="danger"
        style={styles.title}
      >{`${missing.size} ${missing.size === 1 ? 'sound' : 'sounds'} could not be loaded: ${[...missing.values()][0]}. The piece itself is whole.`}</Text>
      <Button label="Load the missing sounds again" onPress={() => studio.retryMissing()}>
        Try again
      </Button>
    </View>
  );
}

function Tracks() {
  const piece = usePiece();
  return piece.tracks.length === 0 ? <NoTracks /> : <TrackTable />;
}

/** Heads of all channels beside their clips along time. */
function TrackTable() {
  const piece = usePiece();
  const tokens = useTokens();
  const wide = useWide();
  const { pxPerBeat, width, onLayout } = useTimeScale();
  const heads = useRef<View>(null);
  useRovingFocus(heads, { rows: '[data-testid^="head of "]', first: '[aria-selected=true]', onMove: chooseHead });
  const lanes = useRef<View>(null);
  // Arrows are keys of commands there: they choose clips, and what is chosen gets the focus.
  useRovingFocus(lanes, { items: '[data-testid^="clip "]', first: '[aria-pressed=true]', arrows: false });
  useDropTargets(
    useCallback(
      (element, clientX) => {
        const lane = element.closest('[data-testid^="lane of "]');
        if (!lane) return null;
        const beat = (clientX - lane.getBoundingClientRect().left) / pxPerBeat;
        return {
          track: lane.getAttribute('data-testid')!.slice('lane of '.length),
          beat: Math.max(0, Math.round(beat)),
        };
      },
      [pxPerBeat],
    ),
  );

  return (
    <View style={styles.tracks}>
      <View ref={heads} role="group" aria-label="Channels" style={{ width: wide ? 178 : 122 }}>
        <View style={styles.rulerGap} />
        <SortableList
          items={piece.tracks}
          keyOf={({ id }) => id}
          nameOf={({ name }) => name}
          anywhere
          onMove={(track, to) => useOpenPiece.getState().run(moveTrack, { track, to })}
          renderItem={(track, index) => <TrackHead track={track} index={index} />}
        />
        {piece.returns.map((made, i) => (
          <ReturnHead key={made.id} made={made} index={piece.tracks.length + i} />
        ))}
        <MainHead index={piece.tracks.length + piece.returns.length} />
      </View>
      <View style={styles.lanes} onLayout={onLayout}>
        <TimeScroll pxPerBeat={pxPerBeat} ruler={<TimeRuler width={width} pxPerBeat={pxPerBeat} />}>
          <View ref={lanes} style={{ width }}>
            {piece.tracks.map((track) => (
              <View
                key={track.id}
                testID={`lane of ${track.id}`}
                style={[styles.lane, { borderColor: tokens.line, opacity: track.mute ? 0.45 : 1 }]}
              >
                <EmptyLane track={track} pxPerBeat={pxPerBeat} />
                <ClipRow
                  track={track}
                  pxPerBeat={pxPerBeat}
                  height={ROW - 22}
                  onChoose={(clip) => useView.setState({ clip: clip.id, channel: track.id, range: null })}
                />
              </View>
            ))}
            {piece.returns.map((made) => (
              <View key={made.id} style={[styles.returnLane, { borderColor: tokens.line }]} />
            ))}
            <Playhead pxPerBeat={pxPerBeat} />
          </View>
        </TimeScroll>
      </View>
    </View>
  );
}

/** Up and down between heads choose their channels. */
function chooseHead(item: HTMLElement): void {
  const id = item.closest('[data-testid^="head of "]')?.getAttribute('data-testid')?.slice('head of '.length);
  const { channel } = useView.getState();
  if (id !== undefined && id !== channel) useView.setState({ channel: id, slot: null, clip: null });
}

function TrackHead({ track, index }: { readonly track: Track; readonly index: number }) {
  const piece = usePiece();
  const moves = piece.lanes.filter((lane) => channelOfTarget(lane.target) === track.id).length;
  return (
    <ChannelHead channel={track} label={`Track ${track.name}`} tone="ink" index={index}>
      {moves > 0 ? (
        <Text variant="bodySmall" tone="coralInk" aria-label={`${moves} lanes of moves`}>
          ∿{moves}
        </Text>
      ) : null}
    </ChannelHead>
  );
}

/** A return has no clips: its head, its level, and how many channels it takes sound from. */
function ReturnHead({ made, index }: { readonly made: Return; readonly index: number }) {
  const piece = usePiece();
  const senders = [...piece.tracks, ...piece.returns].filter((one) =>
    one.sends.some((send) => send.to === made.id),
  ).length;
  return (
    <ChannelHead channel={made} label={`Return ${made.name}`} tone="sea" index={index}>
      <Text variant="bodySmall" aria-label={`fed by ${senders}`}>{`↳${senders}`}</Text>
    </ChannelHead>
  );
}

interface ChannelHeadProps {
  readonly channel: Track | Return;
  readonly label: string;
  readonly tone: 'ink' | 'sea';
  /** Its place among all channels, for its level. */
  readonly index: number;
  readonly children: ReactNode;
}

/** Name and level of a track or a return, its switches, and what is said of it. */
function ChannelHead({ channel: { id, name, chain, mute, solo }, label, tone, index, children }: ChannelHeadProps) {
  const tokens = useTokens();
  const chosen = useView((view) => view.channel === id);
  const [open, setOpen] = useState(false);
  const { run } = useOpenPiece.getState();
  const { studio } = useStudio();
  return (
    <View
      testID={`head of ${id}`}
      style={[styles.trackHead, { borderColor: tokens.line, borderLeftColor: chosen ? tokens.sea : 'transparent' }]}
    >
      <Touchable
        label={chosen ? `${label}: name, order, more` : label}
        chosen={chosen}
        style={styles.trackName}
        onPress={() => {
          if (chosen) setOpen(true);
          else useView.setState({ channel: id, slot: chain[0]?.id ?? null, clip: null });
        }}
      >
        <View style={styles.nameRow}>
          <Text variant="titleSmall" tone={tone} numberOfLines={1} style={styles.nameText}>
            {name}
          </Text>
          {chosen ? (
            <Text variant="titleSmall" tone="mute" style={styles.more}>
              ▾
            </Text>
          ) : null}
        </View>
        <LevelBars index={index} />
      </Touchable>
      <View style={styles.switches}>
        <Touchable
          role="switch"
          label={`Mute ${name}`}
          chosen={mute}
          style={styles.switch}
          onPress={() => studio.release({ kind: 'channel', channel: id, param: 'mute' }, !mute)}
        >
          <Text variant={mute ? 'titleSmall' : 'bodySmall'} tone={mute ? 'ink' : 'mute'}>
            {mute ? 'muted' : 'mute'}
          </Text>
        </Touchable>
        <Touchable
          role="switch"
          label={`Solo ${name}`}
          chosen={solo}
          style={styles.switch}
          onPress={() => run(setSwitch, { track: id, which: 'solo', on: !solo })}
        >
          <Text variant={solo ? 'titleSmall' : 'bodySmall'} tone={solo ? 'sea' : 'mute'}>
            solo
          </Text>
        </Touchable>
        {children}
      </View>
      <ChannelSheet channel={id} open={open} onClose={() => setOpen(false)} />
    </View>
  );
}

function MainHead({ index }: { readonly index: number }) {
  return (
    <View testID={`head of ${MAIN}`}>
      <Touchable
        label="Main output"
        style={styles.mainHead}
        onPress={() => useView.setState({ channel: 'main', slot: null, clip: null })}
      >
        <Text variant="titleSmall">Main</Text>
        <LevelBars index={index} />
      </Touchable>
    </View>
  );
}

const styles = StyleSheet.create({
  panes: { flex: 1, flexDirection: 'row', minHeight: 0 },
  piece: { flex: 1, minWidth: 0, minHeight: 0 },
  side: { width: 400, borderLeftWidth: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 14, paddingTop: 8 },
  title: { flex: 1, minWidth: 0 },
  missing: { flexDirection: 'row', alignItems: 'center', gap: 10, paddingHorizontal: 14 },
  scroll: { flex: 1 },
  scrollContent: { paddingBottom: 16 },
  tracks: { flexDirection: 'row' },
  rulerGap: { height: 44 },
  trackHead: { height: ROW, borderTopWidth: 1, borderLeftWidth: 3, paddingLeft: 6 },
  trackName: { alignItems: 'stretch', paddingHorizontal: 4, borderRadius: 8 },
  nameRow: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  nameText: { fontSize: 14, lineHeight: 19, flexShrink: 1 },
  more: { fontSize: 14, lineHeight: 19 },
  switches: { flexDirection: 'row', alignItems: 'center', marginTop: -6 },
  switch: { paddingHorizontal: 4 },
  mainHead: { alignItems: 'stretch', paddingHorizontal: 13, height: 56 },
  lanes: { flex: 1, minWidth: 0 },
  returnLane: { height: ROW, borderTopWidth: 1 },
  lane: { height: ROW, borderTopWidth: 1, paddingTop: 10 },
});
