import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Divider } from 'react-native-paper';
import { formatNumber } from '../../../core/params/format';
import { paramAtPosition } from '../../../core/params/resolve';
import { unmapControl } from '../../../core/piece/edits/controls';
import { channelName, channelOfTarget, paramOf, targetKey } from '../../../core/piece/find';
import { MAIN, type Control, type Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { ListItem } from '../../../ui/ListItem';
import { useTokens, useWide } from '../../../ui/theme';
import { laneName } from './laneName';
import { usePiece } from '../../studio/StudioProvider';
import { targetsOf } from '../../studio/targets';
import { useControllers } from './controllerStore';
import { Faders } from './Faders';
import { findControllers } from './outside';

interface ControllerButtonProps {
  readonly channel: string;
  /** The name of the parameter that is offered first. */
  readonly target?: Target;
  /** Spoken first, where several of them are in view. */
  readonly before?: string;
}

/** Opens what controllers move: which control moves which rail, and the faders that ship with the app. */
export function ControllerButton({ channel, target, before }: ControllerButtonProps) {
  const piece = usePiece();
  const wide = useWide();
  const [open, setOpen] = useState(false);
  const count = (piece.controls ?? []).length;
  const mapped = [wide ? 'Controller' : '', count > 0 ? `${count}` : ''].filter(Boolean).join(' ') || undefined;
  const close = (): void => {
    setOpen(false);
    useControllers.setState({ learning: null });
  };
  const show = (): void => {
    setOpen(true);
    if (target) useControllers.setState({ learning: target });
  };
  return (
    <>
      <Button
        label={
          target
            ? `${before ? `${before}: let` : 'Let'} a control move ${paramOf(piece, target)?.label ?? 'this'}`
            : `Controller: ${count} mapped`
        }
        icon="sliders"
        tone="coralInk"
        onPress={show}
      >
        {target ? 'map' : mapped}
      </Button>
      <Sheet title="Controller" visible={open} onClose={close}>
        <ScrollView style={styles.body}>
          <Learning channel={channel} />
          {(piece.controls ?? []).map((control) => (
            <Mapped key={control.id} control={control} />
          ))}
          <Text variant="headlineSmall" style={styles.heading}>
            Outside
          </Text>
          <Outside />
          <Text variant="headlineSmall" style={styles.heading}>
            Built in
          </Text>
          <Faders />
        </ScrollView>
      </Sheet>
    </>
  );
}

function useTargetName(target: Target): string {
  const piece = usePiece();
  const param = paramOf(piece, target);
  return param ? `${channelName(piece, channelOfTarget(target))}: ${laneName(piece, { target }, param)}` : 'gone';
}

function Mapped({ control }: { readonly control: Control }) {
  const piece = usePiece();
  const name = useTargetName(control.target);
  const stands = useControllers(({ waiting }) => waiting[control.id]);
  const param = paramOf(piece, control.target);
  const at =
    stands !== undefined && param?.kind === 'number' ? formatNumber(param, paramAtPosition(param, stands)) : null;
  return (
    <>
      <Divider />
      <View style={styles.row}>
        <View style={styles.names}>
          <Text variant="titleSmall" numberOfLines={1}>
            {name}
          </Text>
          <Text variant="bodySmall">{`control ${control.number}, channel ${control.midiChannel + 1}${at === null ? '' : ` · takes hold at ${at}`}`}</Text>
        </View>
        <IconButton
          icon="x"
          label={`Let no control move ${name}`}
          tone="mute"
          onPress={() => useOpenPiece.getState().run(unmapControl, { control: control.id })}
        />
      </View>
    </>
  );
}

/** Says what the next control will move, or lets a rail be chosen for it. */
function Learning({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const learning = useControllers((controllers) => controllers.learning);
  const [choosing, setChoosing] = useState(false);
  if (learning) return <Waiting target={learning} />;
  if (!choosing)
    return (
      <Button
        label="Map a rail to a control"
        icon="plus"
        tone="coralInk"
        style={styles.start}
        onPress={() => setChoosing(true)}
      >
        Map a rail
      </Button>
    );
  const channels = channel === MAIN ? [MAIN] : [channel, MAIN];
  const choose = (target: Target): void => {
    useControllers.setState({ learning: target });
    setChoosing(false);
  };
  return (
    <View>
      {channels.flatMap((id) =>
        targetsOf(piece, id, () => true).map(({ title, choices }) => (
          <View key={`${id} ${title}`}>
            <Text variant="headlineSmall">{`${channelName(piece, id)}, ${title.toLowerCase()}`}</Text>
            {choices.map(({ target, param }) => (
              <ListItem
                key={targetKey(target)}
                title={param.label}
                label={`Map ${title} ${param.label} of ${channelName(piece, id)}`}
                style={styles.item}
                onPress={() => choose(target)}
              />
            ))}
          </View>
        )),
      )}
    </View>
  );
}

function Waiting({ target }: { readonly target: Target }) {
  const tokens = useTokens();
  const name = useTargetName(target);
  return (
    <View role="status" style={[styles.waiting, { borderColor: tokens.coral, backgroundColor: tokens.coralSoft }]}>
      <Text variant="titleSmall" tone="coralInk">
        {name}
      </Text>
      <Text variant="bodySmall" tone="ink">
        Move the control that shall move it, of your controller or below.
      </Text>
      <Button label="Map nothing" style={styles.start} onPress={() => useControllers.setState({ learning: null })}>
        not now
      </Button>
    </View>
  );
}

function Outside() {
  const outside = useControllers((controllers) => controllers.outside);
  return (
    <View role="status">
      {typeof outside === 'string' ? <Text variant="bodySmall">{outside}</Text> : null}
      {outside !== null && typeof outside !== 'string' ? (
        outside.map((name) => <Text key={name}>{name}</Text>)
      ) : (
        <Button
          label="Listen to controllers that are plugged in"
          style={styles.start}
          onPress={() => void findControllers()}
        >
          listen to controllers
        </Button>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  heading: { marginTop: 14 },
  start: { alignSelf: 'flex-start', marginVertical: 6 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  row: { flexDirection: 'row', alignItems: 'center', paddingVertical: 4 },
  names: { flex: 1, minWidth: 0 },
  waiting: { borderWidth: 1.5, borderRadius: 14, padding: 12, gap: 4 },
});
