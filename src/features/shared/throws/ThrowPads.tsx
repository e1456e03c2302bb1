import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { setSend } from '../../../core/piece/edits/sends';
import { findChannel } from '../../../core/piece/find';
import type { Return, Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useRecording } from '../../../data/recording';
import { Pad } from '../../../ui/Pad';
import { Text } from '../../../ui/Text';
import { usePiece, useStudio } from '../../studio/StudioProvider';

interface ThrowPadsProps {
  readonly channel: string;
  readonly returns: readonly Return[];
}

/** A large pad for each return: its send is open for as long as the pad is held; armed and playing, that is a move. */
export function ThrowPads({ channel, returns }: ThrowPadsProps) {
  const armed = useRecording((recording) => recording.armed);
  const playing = useRecording((recording) => recording.playing);
  return (
    <View style={styles.pads}>
      <Text variant="bodySmall">
        {armed && playing
          ? 'Hold a pad: what you throw is recorded.'
          : armed
            ? 'Armed: play, then hold a pad.'
            : 'Hold a pad while it plays. Press moves first to record what you throw.'}
      </Text>
      <View style={styles.row}>
        {returns.map((made) => (
          <ThrowPad key={made.id} channel={channel} made={made} />
        ))}
      </View>
    </View>
  );
}

function ThrowPad({ channel, made }: { readonly channel: string; readonly made: Return }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const held = useRef(false);
  const target: Target = { kind: 'send', channel, to: made.id };
  const hold = (): void => {
    if (held.current) return;
    if (
      !findChannel(piece, channel)?.sends.some(({ to }) => to === made.id) &&
      !useOpenPiece.getState().run(setSend, { channel, to: made.id, level: 0 })
    )
      return;
    held.current = true;
    studio.live.begin(target, 1);
  };
  const letGo = (): void => {
    if (held.current) studio.live.end(target);
    held.current = false;
  };
  return <Pad label={`Hold to throw into ${made.name}`} title={made.name} tone="coral" onBegin={hold} onEnd={letGo} />;
}

const styles = StyleSheet.create({
  pads: { marginTop: 6, gap: 10, paddingBottom: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
