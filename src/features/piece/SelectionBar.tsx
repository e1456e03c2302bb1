import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { clipEnd } from '../../core/piece/clipEdges';
import { copyClip, moveClip, removeClip } from '../../core/piece/edits/clips';
import { setLoop } from '../../core/piece/edits/channels';
import { channelName, findClip } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { BedSheet } from '../recipes/BedSheet';
import { RecipeSheet } from '../recipes/RecipeSheet';
import { RiserSheet } from '../recipes/RiserSheet';
import { SwellSheet } from '../recipes/SwellSheet';
import { PrintSheet } from '../shelf/PrintSheet';
import { TreatSheet } from '../treat/TreatSheet';
import { usePiece } from '../studio/StudioProvider';
import { ClipShape } from './ClipShape';
import { ClipTools, repeatBeats } from './ClipTools';
import { OtherTrack } from './OtherTrack';
import { SectionButton } from './SectionButton';

/** What can be done with the chosen clip or stretch. */
export function SelectionBar() {
  const piece = usePiece();
  const tokens = useTokens();
  const { clip: clipId, range, channel, set } = useSession();
  const [printing, setPrinting] = useState(false);
  const [rising, setRising] = useState(false);
  const [bedding, setBedding] = useState(false);
  const [treating, setTreating] = useState(false);
  const [making, setMaking] = useState(false);
  const [swelling, setSwelling] = useState(false);
  const [shaping, setShaping] = useState(false);
  const { run } = useOpenPiece.getState();
  const found = clipId ? findClip(piece, clipId) : undefined;
  if (!found && !range) return null;
  const say = (beat: number): string => {
    const { bar, beat: at } = toBarBeat(beat, piece.tempo);
    return `${bar}.${at}`;
  };
  const copyAfter = (): void => {
    if (!found) return;
    const { clip, track: on } = found;
    const id = crypto.randomUUID();
    if (run(copyClip, { clip: clip.id, start: clip.start + repeatBeats(piece, clip), track: on.id, id })) set({ clip: id });
  };
  const track = found ? found.track : channel === MAIN ? undefined : piece.tracks.find((candidate) => candidate.id === channel);
  const stretch = found ? { start: found.clip.start, end: clipEnd(piece, found.clip) } : range;
  const title = found ? found.clip.name : `${say(range!.start)} to ${say(range!.end)}, ${channelName(piece, channel)}`;
  return (
    <View role="toolbar" aria-label="Selection" style={[styles.bar, { backgroundColor: tokens.card, borderColor: tokens.line }]}>
      <View style={styles.titleRow}>
        <Words kind="strong" numberOfLines={1} style={styles.title}>{title}</Words>
        <Tap plain icon="x" label="Let go of the selection" onPress={() => set({ clip: null, range: null })} />
      </View>
      {found && shaping ? <ClipShape clip={found.clip} /> : null}
      <View style={styles.row}>
        {found || range ? <Tap filled tone="plum" label="Print" text="Print …" onPress={() => setPrinting(true)} /> : null}
        {range && !found ? <Tap tone="plum" label="Riser over this" text="Riser …" onPress={() => setRising(true)} /> : null}
        {range && !found && track ? <Tap tone="plum" label="Bed over this" text="Bed …" onPress={() => setBedding(true)} /> : null}
        {range && !found && track ? <Tap tone="plum" label="Recipes for this" text="Make …" onPress={() => setMaking(true)} /> : null}
        {range && !found ? <SectionButton beat={range.start} /> : null}
        {range && !found ? <Tap label="Loop this" text="Loop this" onPress={() => run(setLoop, { on: true, ...range })} /> : null}
        {found ? (
          <>
            <Tap icon="arrow-left" label="A beat earlier" onPress={() => run(moveClip, { clip: found.clip.id, start: Math.max(0, found.clip.start - 1) })} />
            <Tap icon="arrow-right" label="A beat later" onPress={() => run(moveClip, { clip: found.clip.id, start: found.clip.start + 1 })} />
            <Tap icon="copy" label="Copy the clip after itself" onPress={() => copyAfter()} />
            <OtherTrack clip={found.clip} track={found.track.id} />
            <Tap icon="trash-2" label="Remove the clip" onPress={() => run(removeClip, { clip: found.clip.id }) && set({ clip: null })} />
          </>
        ) : null}
      </View>
      {found ? <ClipTools clip={found.clip} track={found.track} shaping={shaping} onShape={() => setShaping(!shaping)} onSwell={() => setSwelling(true)} onTreat={() => setTreating(true)} onMake={() => setMaking(true)} /> : null}
      {found ? <TreatSheet clip={found.clip} track={found.track} visible={treating} onClose={() => setTreating(false)} /> : null}
      {found ? <SwellSheet track={found.track} visible={swelling} onClose={() => setSwelling(false)} /> : null}
      {range ? <RiserSheet range={range} where={`${say(range.start)} to ${say(range.end)}`} visible={rising} onClose={() => setRising(false)} /> : null}
      {range && track ? <BedSheet track={track} range={range} where={`${say(range.start)} to ${say(range.end)}`} visible={bedding} onClose={() => setBedding(false)} /> : null}
      {stretch && track ? <RecipeSheet track={track} range={stretch} where={`${say(stretch.start)} to ${say(stretch.end)}`} visible={making} onClose={() => setMaking(false)} /> : null}
      <PrintSheet
        visible={printing}
        onClose={() => setPrinting(false)}
        channel={found ? found.track.id : channel}
        clip={found?.clip.id ?? null}
        range={found ? null : range}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { borderTopWidth: 1, paddingHorizontal: 14, paddingBottom: 8 },
  titleRow: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
