import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { writeWav } from '../../core/formats/writeWav';
import { fromRecording } from '../../core/impulses/recording';
import { SWEEP_SECONDS } from '../../core/impulses/sweep';
import { setEffectSound } from '../../core/piece/edits/chain';
import type { Slot } from '../../core/piece/piece';
import { findPlace, SOUND_INPUTS } from '../../audio/soundInput';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { NameField } from '../../ui/NameField';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { Waveform } from '../../ui/Waveform';
import { usePiece } from '../studio/StudioProvider';
import { reasonOf } from '../../core/reasonOf';

const CLAP_SECONDS = 5;
const AFTER_SWEEP_SECONDS = 4;
const WAVE = { width: 320, height: 72, peaks: 160 } as const;

type State =
  | { readonly kind: 'ready'; readonly problem: string | null }
  | { readonly kind: 'recording'; readonly peak: number; readonly share: number }
  | { readonly kind: 'working' }
  | { readonly kind: 'found'; readonly channels: readonly Float32Array[]; readonly sweep: boolean };

const READY: State = { kind: 'ready', problem: null };

/** Records a clap or a sweep in a room, shows the impulse response, and uses it. */
export function RecordPlace({
  channel,
  slot,
  onDone,
}: {
  readonly channel: string;
  readonly slot: Slot;
  readonly onDone: () => void;
}) {
  const { sampleRate } = usePiece();
  const [input, setInput] = useState(SOUND_INPUTS[0]!);
  const [state, setState] = useState<State>(READY);
  const fail = (error: unknown): void => setState({ kind: 'ready', problem: reasonOf(error) });
  const record = async (sweep: boolean): Promise<void> => {
    setState({ kind: 'recording', peak: 0, share: 0 });
    const heard = await input.record({
      sweep,
      seconds: sweep ? SWEEP_SECONDS + AFTER_SWEEP_SECONDS : CLAP_SECONDS,
      sampleRate,
      onLevel: (peak, share) => setState({ kind: 'recording', peak, share }),
    });
    setState({ kind: 'working' });
    const channels = sweep ? await findPlace(heard, sampleRate) : heard;
    setState(
      channels.every((side) => side.every((x) => x === 0))
        ? { kind: 'ready', problem: 'Nothing was heard. Nothing was changed; raise the input and try again.' }
        : { kind: 'found', channels, sweep },
    );
  };
  const use = async (channels: readonly Float32Array[], name: string): Promise<void> => {
    const bytes = writeWav({ sampleRate, channels: [...channels] }, '32f');
    const { hash, ...info } = await uploadSound(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
    if (useOpenPiece.getState().run(setEffectSound, { channel, slot: slot.id, sound: hash, info: { ...info, name } }))
      onDone();
  };
  if (state.kind === 'recording') return <Recording peak={state.peak} share={state.share} />;
  if (state.kind === 'working') return <Text variant="bodySmall">Finding the place in what was heard …</Text>;
  if (state.kind === 'found')
    return (
      <Found
        channels={state.channels}
        sweep={state.sweep}
        sampleRate={sampleRate}
        onUse={(name) => void use(state.channels, name).catch(fail)}
        onAgain={() => setState(READY)}
      />
    );
  return (
    <View style={styles.parts}>
      {state.problem ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {state.problem}
        </Text>
      ) : null}
      <View role="radiogroup" aria-label="Input" style={styles.row}>
        {SOUND_INPUTS.map((one) => (
          <Chip
            key={one.id}
            role="radio"
            label={`Input: ${one.name}`}
            chosen={one === input}
            tone="sea"
            onPress={() => setInput(one)}
          >
            {one.name}
          </Chip>
        ))}
      </View>
      <Text variant="bodySmall">
        {input.id === 'standIn'
          ? 'A room that comes with Zephiro answers: to try it without a microphone.'
          : 'Keep still before and after: the place is taken from your sound to the silence after it.'}
      </Text>
      <Button
        label="Record a clap"
        icon="mic"
        tone="danger"
        mode="contained"
        onPress={() => void record(false).catch(fail)}
      >{`Record a clap, ${CLAP_SECONDS} s`}</Button>
      <Button
        label="Play a sweep and record it"
        icon="trending-up"
        onPress={() => void record(true).catch(fail)}
      >{`Play a sweep and record it, ${SWEEP_SECONDS + AFTER_SWEEP_SECONDS} s`}</Button>
      <Text variant="bodySmall">
        A clap is quick and rough. A sweep from a loudspeaker finds the place far below its noise.
      </Text>
    </View>
  );
}

function Recording({ peak, share }: { readonly peak: number; readonly share: number }) {
  const tokens = useTokens();
  return (
    <View role="status" style={styles.parts}>
      <Text tone="danger">{`● recording, ${Math.round(share * 100)} %`}</Text>
      <View style={[styles.meter, { backgroundColor: tokens.line }]}>
        <View
          style={[styles.meter, { backgroundColor: tokens.sand, width: `${Math.min(100, Math.sqrt(peak) * 100)}%` }]}
        />
      </View>
      {peak >= 0.99 ? (
        <Text variant="bodySmall" tone="danger">
          Too loud: turn the input down.
        </Text>
      ) : null}
    </View>
  );
}

interface FoundProps {
  readonly channels: readonly Float32Array[];
  readonly sweep: boolean;
  readonly sampleRate: number;
  readonly onUse: (name: string) => void;
  readonly onAgain: () => void;
}

/** The used part: from the onset to the noise floor, with both times. */
function Found({ channels, sweep, sampleRate, onUse, onAgain }: FoundProps) {
  const tokens = useTokens();
  const { peaks, seconds } = useMemo(() => {
    const { left } = fromRecording({ left: channels[0]!, right: channels[1] ?? channels[0]! }, sampleRate);
    const loudest = left.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9);
    const per = Math.max(1, Math.ceil(left.length / WAVE.peaks));
    return {
      seconds: left.length / sampleRate,
      peaks: Float32Array.from(
        { length: Math.ceil(left.length / per) },
        (_, i) => left.subarray(i * per, (i + 1) * per).reduce((most, x) => Math.max(most, Math.abs(x)), 0) / loudest,
      ),
    };
  }, [channels, sampleRate]);
  return (
    <View style={styles.parts}>
      <Text>{`Found: ${seconds.toFixed(2)} s, from its onset to where it sinks into the noise.`}</Text>
      <View role="img" aria-label={`What was found, ${seconds.toFixed(2)} seconds`}>
        <Waveform
          peaks={peaks}
          from={0}
          to={peaks.length}
          width={WAVE.width}
          height={WAVE.height}
          colour={tokens.sea}
        />
      </View>
      <NameField
        label="Name of the place"
        initial={sweep ? 'Swept place' : 'Clapped place'}
        action="Ring in it"
        onName={onUse}
      />
      <Button mode="text" style={styles.again} onPress={onAgain}>
        Record again
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  parts: { gap: 10, paddingBottom: 6 },
  row: { flexDirection: 'row', gap: 8 },
  meter: { height: 8, borderRadius: 4 },
  again: { alignSelf: 'flex-start' },
});
