import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { formatNumber } from '../../core/params/format';
import { paramAtPosition } from '../../core/params/resolve';
import { unmapControl } from '../../core/piece/edits/controls';
import { channelName, paramOf } from '../../core/piece/find';
import { MAIN, type Control, type Target } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
import { laneName } from '../moves/laneName';
import { usePiece } from '../studio/StudioProvider';
import { targetsOf } from '../studio/targets';
import { useControllers } from './controllerStore';
import { Faders } from './Faders';
import { findControllers } from './outside';

/**
 * Opens what controllers move: which control moves which rail, and the faders that ship with the app.
 * @param target offered first, by the name of what it moves
 */
export function ControllerButton({ channel, target }: { readonly channel: string; readonly target?: Target }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const count = (piece.controls ?? []).length;
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
      <Tap
        icon="sliders"
        text={target ? 'map' : count > 0 ? `${count}` : undefined}
        label={target ? `Let a control move ${paramOf(piece, target)?.label ?? 'this'}` : `Controller: ${count} mapped`}
        tone="coralInk"
        onPress={show}
      />
      <Sheet title="Controller" visible={open} onClose={close}>
        <ScrollView style={styles.body}>
          <Learning channel={channel} />
          {(piece.controls ?? []).map((control) => (
            <Mapped key={control.id} control={control} />
          ))}
          <Words kind="water" style={styles.heading}>
            Outside
          </Words>
          <Outside />
          <Words kind="water" style={styles.heading}>
            Built in
          </Words>
          <Faders />
        </ScrollView>
      </Sheet>
    </>
  );
}

function useTargetName(target: Target): string {
  const piece = usePiece();
  const param = paramOf(piece, target);
  return param ? `${channelName(piece, target.channel)}: ${laneName(piece, { target }, param)}` : 'gone';
}

function Mapped({ control }: { readonly control: Control }) {
  const piece = usePiece();
  const tokens = useTokens();
  const name = useTargetName(control.target);
  const stands = useControllers(({ waiting }) => waiting[control.id]);
  const param = paramOf(piece, control.target);
  const at =
    stands !== undefined && param?.kind === 'number' ? formatNumber(param, paramAtPosition(param, stands)) : null;
  return (
    <View style={[styles.row, { borderColor: tokens.line }]}>
      <View style={styles.names}>
        <Words kind="strong" numberOfLines={1}>
          {name}
        </Words>
        <Words kind="small">{`control ${control.number}, channel ${control.midiChannel + 1}${at === null ? '' : ` · takes hold at ${at}`}`}</Words>
      </View>
      <Tap
        plain
        icon="x"
        tone="mute"
        label={`Let no control move ${name}`}
        onPress={() => useOpenPiece.getState().run(unmapControl, { control: control.id })}
      />
    </View>
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
      <Tap
        icon="plus"
        text="Map a rail"
        label="Map a rail to a control"
        tone="coralInk"
        onPress={() => setChoosing(true)}
        style={styles.start}
      />
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
            <Words kind="water">{`${channelName(piece, id)}, ${title.toLowerCase()}`}</Words>
            {choices.map(({ target, param }) => (
              <Tap
                key={target.param}
                plain
                label={`Map ${title} ${param.label} of ${channelName(piece, id)}`}
                onPress={() => choose(target)}
                style={styles.item}
              >
                <Words>{param.label}</Words>
              </Tap>
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
      <Words kind="strong" tone="coralInk">
        {name}
      </Words>
      <Words kind="small" tone="ink">
        Move the control that shall move it, of your controller or below.
      </Words>
      <Tap
        text="not now"
        label="Map nothing"
        onPress={() => useControllers.setState({ learning: null })}
        style={styles.start}
      />
    </View>
  );
}

function Outside() {
  const outside = useControllers((controllers) => controllers.outside);
  return (
    <View role="status">
      {typeof outside === 'string' ? <Words kind="small">{outside}</Words> : null}
      {outside !== null && typeof outside !== 'string' ? (
        outside.map((name) => <Words key={name}>{name}</Words>)
      ) : (
        <Tap
          text="listen to controllers"
          label="Listen to controllers that are plugged in"
          onPress={() => void findControllers()}
          style={styles.start}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 620 },
  heading: { marginTop: 14 },
  start: { alignSelf: 'flex-start', marginVertical: 6 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
  row: { flexDirection: 'row', alignItems: 'center', borderBottomWidth: 1, paddingVertical: 4 },
  names: { flex: 1, minWidth: 0 },
  waiting: { borderWidth: 1.5, borderRadius: 14, padding: 12, gap: 4 },
});
