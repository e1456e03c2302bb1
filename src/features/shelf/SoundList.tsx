import { Fragment } from 'react';
import { StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { useTokens } from '../../ui/theme';
import { Waveform } from '../../ui/Waveform';
import { Text } from '../../ui/Text';
import { ImportButton } from '../shared/sounds/ImportButton';
import { ImportStatus } from '../shared/sounds/ImportStatus';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { matchesWords } from '../shared/shell/matchesWords';
import { HearTap } from './HearTap';

const WAVE_WIDTH = 96;
const WAVE_HEIGHT = 36;

/** The recorded sounds of this piece, each once. @param words only those whose names have them */
export function SoundList({ words = '' }: { readonly words?: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio, missing } = useStudio();
  const printed = new Set(piece.prints.map((print) => print.sound));
  const used = new Set(piece.tracks.flatMap((track) => track.clips.map((clip) => clip.sound)));
  const all = Object.entries(piece.sounds).filter(([hash]) => !printed.has(hash) && used.has(hash));
  const sounds = all.filter(([, { name }]) => matchesWords(name, words));
  return (
    <View style={styles.list}>
      <View style={styles.head}>
        <Text variant="headlineSmall" tone="sandInk" style={styles.title}>
          Sounds
        </Text>
        <ImportButton />
      </View>
      <ImportStatus />
      {all.length > 0 && sounds.length === 0 ? <Text variant="bodySmall">No sound is called so.</Text> : null}
      {all.length === 0 ? (
        <Text variant="bodySmall">
          No sounds yet. Add a WAV, AIFF, FLAC, MP3 or OGG file: it becomes a clip on a track of its own.
        </Text>
      ) : null}
      {sounds.map(([hash, info]) => {
        const sound = studio.sounds.get(hash);
        return (
          <Fragment key={hash}>
            <Divider />
            <View style={styles.row}>
              <HearTap name={info.name} sound={sound} sampleRate={piece.sampleRate} />
              <View style={styles.words}>
                <Text numberOfLines={1}>{info.name}</Text>
                <Text variant="bodySmall" numberOfLines={1}>
                  {missing.has(hash)
                    ? 'could not be loaded'
                    : `${(info.frames / info.sampleRate).toFixed(2)} s · ${info.channels === 2 ? 'stereo' : 'mono'} · ${info.sampleRate / 1000} kHz`}
                </Text>
              </View>
              {sound ? (
                <Waveform
                  peaks={sound.peaks}
                  from={0}
                  to={sound.peaks.length}
                  width={WAVE_WIDTH}
                  height={WAVE_HEIGHT}
                  colour={tokens.sand}
                />
              ) : (
                <View style={styles.noWave} />
              )}
            </View>
          </Fragment>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { marginTop: 14 },
  head: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 58 },
  words: { flex: 1, minWidth: 0 },
  noWave: { width: WAVE_WIDTH },
});
