import Feather from '@expo/vector-icons/Feather';
import { useState } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { toBarBeat } from '../../core/music/grid';
import { placePrint, printsTrackName, removePrint } from '../../core/piece/edits/prints';
import type { Piece, Print } from '../../core/piece/piece';
import { soundFileUrl } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Waveform } from '../../ui/Waveform';
import { Words } from '../../ui/Words';
import { cancelPrint, print as startPrint, storeAgain, usePrinting, type PrintWork } from '../studio/printing';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { HearTap } from './HearTap';
import { newId } from '../../data/newId';

const DEPTHS = [
  { bits: '24', text: '24 bit' },
  { bits: '16', text: '16 bit' },
  { bits: '32f', text: '32 float' },
] as const;

const PART_NAMES = { wet: 'wet only', mix: 'wet and dry', dry: 'dry' } as const;

/** Prints of this piece, newest first, and those on their way. */
export function PrintList() {
  const piece = usePiece();
  const works = usePrinting((state) => state.works);
  return (
    <View style={styles.list}>
      <Words kind="water" tone="plum">
        Prints
      </Words>
      {works.map((work) => (
        <Working key={work.id} work={work} />
      ))}
      {[...piece.prints].reverse().map((print) => (
        <PrintCard key={print.id} print={print} />
      ))}
      {piece.prints.length === 0 && works.length === 0 ? (
        <Words kind="small">
          No prints yet. In Piece, choose a clip or drag a stretch of the ruler, then print: the echo becomes a sound of
          its own that lands here.
        </Words>
      ) : null}
    </View>
  );
}

function Working({ work }: { readonly work: PrintWork }) {
  const tokens = useTokens();
  const busy = work.state === 'printing' || work.state === 'storing';
  return (
    <View style={[styles.card, { borderColor: tokens.plum, backgroundColor: tokens.card }]}>
      <Words kind="strong" numberOfLines={1}>
        {work.name}
      </Words>
      {busy ? (
        <View style={styles.progress}>
          <ProgressBar progress={work.share} color={tokens.plum} aria-label={`Printing ${work.name}`} />
        </View>
      ) : null}
      <Words kind="small" role="status" tone={busy ? 'mute' : 'danger'}>
        {busy
          ? `${work.state === 'printing' ? 'printing' : 'storing'} … ${Math.round(work.share * 100)} %`
          : work.message}
      </Words>
      <View style={styles.tools}>
        {work.state === 'unsent' ? (
          <Tap label="Store the print again" text="Try again" onPress={() => storeAgain(work.id)} />
        ) : null}
        <Tap
          icon="x"
          label={busy ? `Stop printing ${work.name}` : 'Put away'}
          text={busy ? 'Stop' : 'Put away'}
          onPress={() => cancelPrint(work.id)}
        />
      </View>
    </View>
  );
}

function PrintCard({ print }: { readonly print: Print }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const [width, setWidth] = useState(0);
  const sound = studio.sounds.get(print.sound);
  const { bar, beat } = toBarBeat(print.from.fromBeat, { bpm: print.from.bpm, beatsPerBar: piece.tempo.beatsPerBar });
  const seconds = (piece.sounds[print.sound]?.frames ?? 0) / print.sampleRate;
  return (
    <View
      role="group"
      aria-label={`Print ${print.name}`}
      style={[styles.card, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      <View style={styles.head}>
        <Words kind="strong" numberOfLines={2} style={styles.name}>
          {print.name}
        </Words>
        <Tap
          plain
          icon="trash-2"
          tone="mute"
          label={`Remove ${print.name}`}
          onPress={() => useOpenPiece.getState().run(removePrint, { print: print.id })}
        />
      </View>
      <View
        style={[styles.wave, { backgroundColor: tokens.plumSoft }]}
        onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
      >
        {sound && width > 0 ? (
          <Waveform
            peaks={sound.peaks}
            from={0}
            to={sound.peaks.length}
            width={width}
            height={44}
            colour={tokens.plum}
          />
        ) : (
          <Words kind="small">loading …</Words>
        )}
      </View>
      <Words kind="small">{`from ${print.from.channelName}, bar ${bar}.${beat} · ${seconds.toFixed(2)} s · ${PART_NAMES[print.from.part]} · rings ${print.from.tail}`}</Words>
      <View style={styles.tools}>
        <HearTap name={print.name} sound={sound} sampleRate={print.sampleRate} text />
        <Tap
          icon="corner-left-up"
          label={`Place ${print.name} where it came from`}
          text="Place"
          onPress={() => place(piece, print)}
        />
        {print.from.order ? (
          <Tap
            icon="refresh-cw"
            label={`Print ${print.name} again`}
            text="Again"
            onPress={() => print.from.order && void startPrint(studio, print.from.order, print)}
          />
        ) : null}
      </View>
      <View style={styles.tools}>
        <Feather name="download" size={18} color={tokens.mute} />
        <Words kind="small">WAV</Words>
        {DEPTHS.map(({ bits, text }) => (
          <Tap
            key={bits}
            label={`Download ${print.name} as ${text} WAV`}
            text={text}
            onPress={() => download(print, bits)}
            style={styles.depth}
          />
        ))}
      </View>
    </View>
  );
}

function place(piece: Piece, print: Print): void {
  const { run, say } = useOpenPiece.getState();
  const name = printsTrackName(piece, print);
  if (run(placePrint, { print: print.id, place: { clip: newId(), track: newId(), instead: false } }))
    say(`Placed on “${name}”, at the sample it came from.`);
}

function download(print: Print, bits: '16' | '24' | '32f'): void {
  const link = document.createElement('a');
  link.href = soundFileUrl(print.sound, print.name.replace(/[^\p{L}\p{N} ,.-]/gu, ''), bits);
  link.download = '';
  link.click();
}

const styles = StyleSheet.create({
  list: { gap: 12, marginTop: 8 },
  card: { borderWidth: 1, borderRadius: 16, padding: 14, gap: 8 },
  progress: { height: 6, overflow: 'hidden' },
  wave: { height: 44, borderRadius: 8, overflow: 'hidden', justifyContent: 'center' },
  tools: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  head: { flexDirection: 'row', alignItems: 'flex-start', gap: 8 },
  name: { flex: 1, paddingTop: 10 },
  depth: { paddingHorizontal: 10 },
});
