import { Fragment } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { channelIds, channelName, findChannel, reaches } from '../../../core/piece/find';
import { setSend } from '../../../core/piece/edits/sends';
import { MAIN, SEND_LEVEL } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { ParamRail } from '../channels/ParamRail';
import { usePiece } from '../../studio/StudioProvider';
import { AddReturn } from './AddReturn';

const COLUMN = 168;

/** A table of all sends: channels against returns. For wide screens. */
export function SendMatrix() {
  const piece = usePiece();
  const tokens = useTokens();
  const rows = channelIds(piece).filter((id) => id !== MAIN);
  return (
    <View role="group" aria-label="Sends" style={[styles.matrix, { borderColor: tokens.line }]}>
      <View style={styles.head}>
        <Text variant="headlineSmall" role="heading" aria-level={2} style={styles.title}>
          Sends
        </Text>
        <AddReturn />
      </View>
      {piece.returns.length === 0 ? (
        <Text variant="bodySmall">
          One echo and one space for all parts: add a return, then send to it from any track.
        </Text>
      ) : (
        <ScrollView horizontal>
          <View>
            {rows.map((id) => (
              <Fragment key={id}>
                <Divider />
                <View style={styles.row}>
                  <Text numberOfLines={1} variant="bodySmall" tone="ink" style={styles.name}>
                    {channelName(piece, id)}
                  </Text>
                  {piece.returns.map((made) => (
                    <Cell key={made.id} channel={id} to={made.id} name={made.name} />
                  ))}
                </View>
              </Fragment>
            ))}
          </View>
        </ScrollView>
      )}
    </View>
  );
}

function Cell({ channel, to, name }: { readonly channel: string; readonly to: string; readonly name: string }) {
  const piece = usePiece();
  const send = findChannel(piece, channel)?.sends.find((candidate) => candidate.to === to);
  if (send) {
    return (
      <View style={styles.cell}>
        <ParamRail
          target={{ kind: 'send', channel, to }}
          param={{ ...SEND_LEVEL, label: name }}
          value={send.level}
          look="wet"
          spoken={`${channelName(piece, channel)} to ${name}`}
        />
      </View>
    );
  }
  if (reaches(piece, to, channel))
    return (
      <View style={styles.cell}>
        <Text variant="bodySmall" style={styles.none}>
          ·
        </Text>
      </View>
    );
  return (
    <View style={styles.cell}>
      <Button
        label={`Send ${channelName(piece, channel)} to ${name}`}
        icon="plus"
        tone="mute"
        mode="text"
        align="flex-start"
        onPress={() => useOpenPiece.getState().run(setSend, { channel, to, level: 0.5 })}
      >
        {name}
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  matrix: { borderTopWidth: 1, marginTop: 12, marginHorizontal: 14, paddingTop: 4, paddingBottom: 12 },
  head: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  row: { flexDirection: 'row', alignItems: 'center', minHeight: 62, gap: 18 },
  name: { width: 110 },
  cell: { width: COLUMN, justifyContent: 'center' },
  none: { textAlign: 'center' },
  add: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
