import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { reaches, channelIds, channelName, findChannel } from '../../../core/piece/find';
import { copySends, removeSend, setSend } from '../../../core/piece/edits/sends';
import { MAIN, SEND_LEVEL, type Send } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { ListItem } from '../../../ui/ListItem';
import { ParamRail } from '../channels/ParamRail';
import { usePiece } from '../../studio/StudioProvider';
import { AddReturn } from './AddReturn';

/** The sends of a channel: a rail for each, and those that can be added. */
export function SendList({ channel }: { readonly channel: string }) {
  const piece = usePiece();
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
    <View role="group" aria-label={`Sends of ${found.name}`} style={styles.list}>
      <Divider />
      <View style={styles.head}>
        <Text variant="headlineSmall" style={styles.title}>
          Sends
        </Text>
        {found.sends.length > 0 ? <CopySends channel={channel} /> : null}
      </View>
      {found.sends.map((send) => (
        <SendRail key={send.to} channel={channel} send={send} />
      ))}
      <View style={styles.more}>
        {open.map((made) => (
          <Button
            key={made.id}
            label={`Send to ${made.name}`}
            icon="corner-down-right"
            onPress={() => useOpenPiece.getState().run(setSend, { channel, to: made.id, level: 0.5 })}
          >
            {made.name}
          </Button>
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
        target={{ kind: 'send', channel, to: send.to }}
        param={{ ...SEND_LEVEL, label: `Send to ${name}` }}
        value={send.level}
        look="wet"
      />
      <View style={styles.tools}>
        <Touchable
          role="switch"
          label={`Send to ${name} before the fader`}
          chosen={send.pre}
          onPress={() => run(setSend, { channel, to: send.to, pre: !send.pre })}
        >
          <Text variant="bodySmall">{send.pre ? 'before the fader' : 'after the fader'}</Text>
        </Touchable>
        <IconButton
          icon="x"
          label={`Remove send to ${name}`}
          tone="mute"
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
      <Button
        label={`Copy the sends of ${channelName(piece, channel)} to other channels`}
        icon="copy"
        onPress={() => {
          setChosen([]);
          setOpen(true);
        }}
      >
        Copy to …
      </Button>
      <Sheet title={`Sends of ${channelName(piece, channel)} for`} visible={open} onClose={() => setOpen(false)}>
        <ListItem
          title="All tracks"
          variant="titleSmall"
          style={styles.item}
          onPress={() => setChosen(piece.tracks.map(({ id }) => id).filter((id) => id !== channel))}
        />
        <ScrollView style={styles.sheet}>
          {others.map((id) => (
            <ListItem
              key={id}
              role="switch"
              title={`${chosen.includes(id) ? '✓ ' : ''}${channelName(piece, id)}`}
              label={channelName(piece, id)}
              chosen={chosen.includes(id)}
              style={styles.item}
              onPress={() => toggle(id)}
            />
          ))}
        </ScrollView>
        <Text variant="bodySmall">Their own sends are replaced; one undo brings them back.</Text>
        <Button
          label={`Copy to ${chosen.length} channels`}
          tone="sea"
          mode="contained"
          disabled={chosen.length === 0}
          style={styles.go}
          onPress={copy}
        >{`Copy to ${chosen.length}`}</Button>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  list: { marginTop: 10 },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  title: { flex: 1 },
  tools: { flexDirection: 'row', justifyContent: 'space-between', marginTop: -8 },
  more: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 4 },
  sheet: { maxHeight: 420 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  go: { marginTop: 10 },
});
