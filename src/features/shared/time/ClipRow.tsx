import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { beatsFrom } from '../../../core/music/tempo';
import type { Clip, Track } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';
import { FRAMES_PER_PEAK } from '../../../audio/soundLibrary';
import { useView } from '../../../data/view';
import { Waveform } from '../../../ui/Waveform';
import { useTokens } from '../../../ui/theme';
import { Text } from '../../../ui/Text';
import { AT_ONCE } from '../../../ui/tokens';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { ClipFades } from './ClipFades';
import { ClipHands } from './ClipHands';

interface ClipRowProps {
  readonly track: Track;
  readonly pxPerBeat: number;
  readonly height: number;
  /** Left out where clips are only shown. */
  readonly onChoose?: (clip: Clip) => void;
}

/**
 * The clips of a track along time, faint where they are muted; the chosen one can be moved and trimmed: sand for
 * recorded sound, plum for prints.
 */
export function ClipRow({ track, pxPerBeat, height, onChoose }: ClipRowProps) {
  return (
    <View style={{ height }}>
      {track.clips.map((clip) => (
        <ClipBlock key={clip.id} clip={clip} pxPerBeat={pxPerBeat} height={height} onChoose={onChoose} />
      ))}
    </View>
  );
}

function ClipBlock({
  clip: placed,
  pxPerBeat,
  height,
  onChoose,
}: { readonly clip: Clip } & Omit<ClipRowProps, 'track'>) {
  const piece = usePiece();
  const [held, setHeld] = useState<Clip | null>(null);
  const clip = held ?? placed;
  const tokens = useTokens();
  const { studio, missing } = useStudio();
  const chosen = useView((view) => view.clip === clip.id);
  const width = Math.max(4, beatsFrom(clip.start, clip.lengthSeconds, tempoOf(piece)) * pxPerBeat - 2);
  const sound = studio.sounds.get(clip.sound);
  const from = (clip.offsetSeconds * piece.sampleRate) / FRAMES_PER_PEAK;
  const to = from + (clip.lengthSeconds * piece.sampleRate) / FRAMES_PER_PEAK;
  const printed = clip.print !== null;
  const named = width > 120;
  const body = (
    <>
      {sound ? (
        <Waveform
          peaks={sound.peaks}
          from={from}
          to={to}
          width={width}
          height={named ? height - 26 : height - 10}
          colour={printed ? tokens.plum : tokens.sand}
          gain={clip.gain}
          reversed={clip.reversed}
        />
      ) : null}
      <ClipFades clip={clip} width={width} height={height - 4} />
      {!sound && width > 60 ? (
        <Text variant="bodySmall" tone="ink" numberOfLines={1}>
          {missing.has(clip.sound) ? 'sound missing' : 'loading …'}
        </Text>
      ) : null}
      {sound && named ? (
        <Text
          variant="bodySmall"
          tone="ink"
          numberOfLines={1}
          style={styles.name}
        >{`${clip.mute ? 'muted · ' : ''}${clip.reversed ? '◂ ' : ''}${clip.name}`}</Text>
      ) : null}
    </>
  );
  const look = [
    styles.clip,
    AT_ONCE,
    {
      opacity: clip.mute ? 0.4 : 1,
      left: clip.start * pxPerBeat,
      width,
      height: height - 4,
      backgroundColor: printed ? tokens.plumSoft : tokens.sandSoft,
      borderColor: chosen ? tokens.ink : 'transparent',
    },
  ];
  if (!onChoose) return <View style={look}>{body}</View>;
  return (
    <TouchableRipple
      role="button"
      testID={`clip ${clip.id}`}
      aria-label={`${printed ? 'Print' : 'Clip'} ${clip.name}`}
      aria-pressed={chosen}
      onPress={() => onChoose(clip)}
      style={look}
    >
      <>
        {body}
        {chosen ? <ClipHands clip={placed} pxPerBeat={pxPerBeat} width={width} onHold={setHeld} /> : null}
      </>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  clip: { position: 'absolute', top: 2, borderRadius: 7, borderWidth: 2, overflow: 'hidden', justifyContent: 'center' },
  name: { marginLeft: 6, fontSize: 11, lineHeight: 14 },
});
