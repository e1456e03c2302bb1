import { useState } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { Card, Icon, ProgressBar } from 'react-native-paper';
import { toBarBeat } from '../../core/music/grid';
import { placePrint, printsTrackName, removePrint } from '../../core/piece/edits/prints';
import type { Piece, Print } from '../../core/piece/piece';
import { soundFileUrl } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { Waveform } from '../../ui/Waveform';
import { cancelPrint, print as startPrint, storeAgain, usePrinting, type PrintWork } from '../studio/printing';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { HearTap } from './HearTap';
import { newId } from '../../data/newId';
import { matchesWords } from '../shared/shell/matchesWords';
import { tempoOf } from '../../core/piece/tempoOf';

const DEPTHS = [
  { bits: '24', text: '24 bit' },
  { bits: '16', text: '16 bit' },
  { bits: '32f', text: '32 float' },
] as const;

const PART_NAMES = { wet: 'wet only', mix: 'wet and dry', dry: 'dry' } as const;

/** Prints of this piece, newest first, and those on their way. @param words only those whose names have them */
export function PrintList({ words = '' }: { readonly words?: string }) {
  const piece = usePiece();
  const works = usePrinting((state) => state.works);
  const found = piece.prints.filter(({ name }) => matchesWords(name, words)).reverse();
  return (
    <View style={styles.list}>
      <Text variant="headlineSmall" tone="plum">
        Prints
      </Text>
      {works.map((work) => (
        <Working key={work.id} work={work} />
      ))}
      {found.map((print) => (
        <PrintCard key={print.id} print={print} />
      ))}
      {piece.prints.length > 0 && found.length === 0 ? <Text variant="bodySmall">No print is called so.</Text> : null}
      {piece.prints.length === 0 && works.length === 0 ? (
        <Text variant="bodySmall">
          No prints yet. In Piece, choose a clip or drag a stretch of the ruler, then print: the echo becomes a sound of
          its own that lands here.
        </Text>
      ) : null}
    </View>
  );
}

function Working({ work }: { readonly work: PrintWork }) {
  const tokens = useTokens();
  const busy = work.state === 'printing' || work.state === 'storing';
  return (
    <Card mode="outlined" style={[styles.card, { borderColor: tokens.plum }]} contentStyle={styles.within}>
      <Text variant="titleSmall" numberOfLines={1}>
        {work.name}
      </Text>
      {busy ? (
        <View style={styles.progress}>
          <ProgressBar progress={work.share} color={tokens.plum} aria-label={`Printing ${work.name}`} />
        </View>
      ) : null}
      <Text variant="bodySmall" role="status" tone={busy ? 'mute' : 'danger'}>
        {busy
          ? `${work.state === 'printing' ? 'printing' : 'storing'} … ${Math.round(work.share * 100)} %`
          : work.message}
      </Text>
      <View style={styles.tools}>
        {work.state === 'unsent' ? (
          <Button label="Store the print again" onPress={() => storeAgain(work.id)}>
            Try again
          </Button>
        ) : null}
        <Button label={busy ? `Stop printing ${work.name}` : 'Put away'} icon="x" onPress={() => cancelPrint(work.id)}>
          {busy ? 'Stop' : 'Put away'}
        </Button>
      </View>
    </Card>
  );
}

function PrintCard({ print }: { readonly print: Print }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const [width, setWidth] = useState(0);
  const sound = studio.sounds.get(print.sound);
  const { bar, beat } = toBarBeat(print.from.fromBeat, tempoOf(piece));
  const seconds = (piece.sounds[print.sound]?.frames ?? 0) / print.sampleRate;
  return (
    <Card
      mode="outlined"
      role="group"
      aria-label={`Print ${print.name}`}
      style={styles.card}
      contentStyle={styles.within}
    >
      <View style={styles.head}>
        <Text variant="titleSmall" numberOfLines={2} style={styles.name}>
          {print.name}
        </Text>
        <IconButton
          icon="trash-2"
          label={`Remove ${print.name}`}
          tone="mute"
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
          <Text variant="bodySmall">loading …</Text>
        )}
      </View>
      <Text variant="bodySmall">{`from ${print.from.channelName}, bar ${bar}.${beat} · ${seconds.toFixed(2)} s · ${PART_NAMES[print.from.part]} · rings ${print.from.tail}`}</Text>
      <View style={styles.tools}>
        <HearTap name={print.name} sound={sound} sampleRate={print.sampleRate} text />
        <Button
          label={`Place ${print.name} where it came from`}
          icon="corner-left-up"
          onPress={() => place(piece, print)}
        >
          Place
        </Button>
        {print.from.order ? (
          <Button
            label={`Print ${print.name} again`}
            icon="refresh-cw"
            onPress={() => print.from.order && void startPrint(studio, print.from.order, print)}
          >
            Again
          </Button>
        ) : null}
      </View>
      <View style={styles.tools}>
        <Icon source="download" size={18} color={tokens.mute} />
        <Text variant="bodySmall">WAV</Text>
        {DEPTHS.map(({ bits, text }) => (
          <Button key={bits} label={`Download ${print.name} as ${text} WAV`} onPress={() => download(print, bits)}>
            {text}
          </Button>
        ))}
      </View>
    </Card>
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
  card: { borderRadius: 16 },
  within: { padding: 14, gap: 8 },
  progress: { height: 6, overflow: 'hidden' },
  wave: { height: 44, borderRadius: 8, overflow: 'hidden', justifyContent: 'center' },
  tools: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  head: { flexDirection: 'row', alignItems: 'flex-start', gap: 8 },
  name: { flex: 1, paddingTop: 10 },
});
