import { ScrollView, StyleSheet, View } from 'react-native';
import { channelIds, channelName, findChannel, reaches } from '../../core/piece/find';
import { setSend } from '../../core/piece/edits/sends';
import { MAIN, SEND_LEVEL, sendParam } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { ParamRail } from '../chain/ParamRail';
import { usePiece } from '../studio/StudioProvider';
import { AddReturn } from './AddReturn';

const COLUMN = 168;

/** Every channel against every return: who sends how much where. For wide screens. */
export function SendMatrix() {
  const piece = usePiece();
  const tokens = useTokens();
  const rows = channelIds(piece).filter((id) => id !== MAIN);
  return (
    <View role="group" aria-label="Sends" style={[styles.matrix, { borderColor: tokens.line }]}>
      <View style={styles.head}>
        <Words kind="water" role="heading" aria-level={2} style={styles.title}>
          Sends
        </Words>
        <AddReturn />
      </View>
      {piece.returns.length === 0 ? (
        <Words kind="small">One echo and one space for all parts: add a return, then send to it from any track.</Words>
      ) : (
        <ScrollView horizontal>
          <View>
            {rows.map((id) => (
              <View key={id} style={[styles.row, { borderColor: tokens.line }]}>
                <Words numberOfLines={1} kind="small" tone="ink" style={styles.name}>
                  {channelName(piece, id)}
                </Words>
                {piece.returns.map((made) => (
                  <Cell key={made.id} channel={id} to={made.id} name={made.name} />
                ))}
              </View>
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
          target={{ channel, effect: null, param: sendParam(to) }}
          param={{ ...SEND_LEVEL, label: name }}
          value={send.level}
          look="wet"
        />
      </View>
    );
  }
  if (reaches(piece, to, channel))
    return (
      <View style={styles.cell}>
        <Words kind="small" style={styles.none}>
          ·
        </Words>
      </View>
    );
  return (
    <View style={styles.cell}>
      <Tap
        plain
        tone="mute"
        icon="plus"
        text={name}
        label={`Send ${channelName(piece, channel)} to ${name}`}
        onPress={() => useOpenPiece.getState().run(setSend, { channel, to, level: 0.5 })}
        style={styles.add}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  matrix: { borderTopWidth: 1, marginTop: 12, marginHorizontal: 14, paddingTop: 4, paddingBottom: 12 },
  head: { flexDirection: 'row', alignItems: 'center' },
  title: { flex: 1 },
  row: { flexDirection: 'row', alignItems: 'center', borderTopWidth: 1, minHeight: 62, gap: 18 },
  name: { width: 110 },
  cell: { width: COLUMN, justifyContent: 'center' },
  none: { textAlign: 'center' },
  add: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
