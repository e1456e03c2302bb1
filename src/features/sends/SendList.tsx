import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { reaches, channelIds, channelName, findChannel } from '../../core/piece/find';
import { copySends, removeSend, setSend } from '../../core/piece/edits/sends';
import { MAIN, SEND_LEVEL, sendParam, type Send } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { ParamRail } from '../chain/ParamRail';
import { usePiece } from '../studio/StudioProvider';
import { AddReturn } from './AddReturn';

/** What a channel gives to the returns: a rail for each send, and those it could still have. */
export function SendList({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const tokens = useTokens();
  const found = findChannel(piece, channel);
  const open = useMemo(
    () =>
      piece.returns.filter(
        (made) => !found?.sends.some((send) => send.to === made.id) && !reaches(piece, made.id, channel),
      ),
    [piece, found, channel],
  );
  if (!found) return null;
  return (
    <View role="group" aria-label={`Sends of ${found.name}`} style={[styles.list, { borderColor: tokens.line }]}>
      <View style={styles.head}>
        <Words kind="water" style={styles.title}>
          Sends
        </Words>
        {found.sends.length > 0 ? <CopySends channel={channel} /> : null}
      </View>
      {found.sends.map((send) => (
        <SendRail key={send.to} channel={channel} send={send} />
      ))}
      <View style={styles.more}>
        {open.map((made) => (
          <Tap
            key={made.id}
            icon="corner-down-right"
            text={made.name}
            label={`Send to ${made.name}`}
            onPress={() => useOpenPiece.getState().run(setSend, { channel, to: made.id, level: 0.5 })}
          />
        ))}
        <AddReturn />
      </View>
    </View>
  );
}

function SendRail({ channel, send }: { readonly channel: string; readonly send: Send }) {
  const piece = usePiece();
  const name = channelName(piece, send.to);
  const { run } = useOpenPiece.getState();
  return (
    <View>
      <ParamRail
        target={{ channel, effect: null, param: sendParam(send.to) }}
        param={{ ...SEND_LEVEL, label: `Send to ${name}` }}
        value={send.level}
        look="wet"
      />
      <View style={styles.tools}>
        <Tap
          plain
          role="switch"
          chosen={send.pre}
          label={`Send to ${name} before the fader`}
          onPress={() => run(setSend, { channel, to: send.to, pre: !send.pre })}
        >
          <Words kind="small">{send.pre ? 'before the fader' : 'after the fader'}</Words>
        </Tap>
        <Tap
          plain
          icon="x"
          tone="mute"
          label={`Remove send to ${name}`}
          onPress={() => run(removeSend, { channel, to: send.to })}
        />
      </View>
    </View>
  );
}

/** Gives other channels the same sends, in one step. */
function CopySends({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const others = channelIds(piece).filter((id) => id !== MAIN && id !== channel);
  const toggle = (id: string): void =>
    setChosen((before) => (before.includes(id) ? before.filter((other) => other !== id) : [...before, id]));
  const copy = (): void => {
    if (useOpenPiece.getState().run(copySends, { from: channel, to: [...chosen] })) setOpen(false);
  };
  return (
    <>
      <Tap
        icon="copy"
        text="Copy to …"
        label={`Copy the sends of ${channelName(piece, channel)} to other channels`}
        onPress={() => {
          setChosen([]);
          setOpen(true);
        }}
      />
      <Sheet title={`Sends of ${channelName(piece, channel)} for`} visible={open} onClose={() => setOpen(false)}>
        <Tap
          plain
          label="All tracks"
          onPress={() => setChosen(piece.tracks.map(({ id }) => id).filter((id) => id !== channel))}
          style={styles.item}
        >
          <Words kind="strong">All tracks</Words>
        </Tap>
        <ScrollView style={styles.sheet}>
          {others.map((id) => (
            <Tap
              key={id}
              plain
              role="switch"
              label={channelName(piece, id)}
              chosen={chosen.includes(id)}
              onPress={() => toggle(id)}
              style={styles.item}
            >
              <Words
                kind={chosen.includes(id) ? 'strong' : 'body'}
              >{`${chosen.includes(id) ? '✓ ' : ''}${channelName(piece, id)}`}</Words>
            </Tap>
          ))}
        </ScrollView>
        <Words kind="small">Their own sends are replaced; one undo brings them back.</Words>
        <Tap
          filled
          tone="sea"
          disabled={chosen.length === 0}
          text={`Copy to ${chosen.length}`}
          label={`Copy to ${chosen.length} channels`}
          onPress={copy}
          style={styles.go}
        />
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  list: { borderTopWidth: 1, marginTop: 10, paddingTop: 4 },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  title: { flex: 1 },
  tools: { flexDirection: 'row', justifyContent: 'space-between', marginTop: -8 },
  more: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 4 },
  sheet: { maxHeight: 420 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  go: { marginTop: 10 },
});
