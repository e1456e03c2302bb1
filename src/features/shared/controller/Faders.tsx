import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { figure } from '../../../core/params/make';
import { contextOf } from '../../../core/piece/find';
import type { ParamValue } from '../../../core/params/param';
import { elementOf } from '../../../ui/frame';
import { Button } from '../../../ui/Button';
import { HoldArea } from '../../../ui/HoldArea';
import { Rail } from '../../../ui/Rail';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { usePiece } from '../../studio/StudioProvider';
import {
  BUTTON_NOTES,
  controlMessages,
  FIRST_FADER,
  FIRST_PAD,
  noteMessages,
  PADS,
  transportMessages,
  useControllers,
} from './controllerStore';

const MOST = 127;
const PARAMS = Array.from({ length: 8 }, (_, i) =>
  figure({
    label: `Fader ${i + 1}`,
    group: 'Controller',
    hint: `Sends control ${FIRST_FADER + i}.`,
    unit: 'count',
    min: 0,
    max: MOST,
    initial: 0,
  }),
);

const BUTTONS = [
  { control: 'presetBack', name: 'Preset before', text: '‹ Preset' },
  { control: 'presetNext', name: 'Next preset', text: 'Preset ›' },
  { control: 'letGo', name: 'Let go of all', text: 'Let go of all' },
] as const;

/**
 * The controller that ships with the app: eight faders, sixteen pads and five buttons that send what an outside one
 * would.
 */
export function Faders() {
  const context = contextOf(usePiece());
  const faders = useControllers((controllers) => controllers.faders);
  const send = (i: number, value: ParamValue): void => {
    const at = typeof value === 'number' ? Math.round(value) : 0;
    if (at === useControllers.getState().faders[i]) return;
    useControllers.setState(({ faders: before }) => ({ faders: before.map((other, k) => (k === i ? at : other)) }));
    controlMessages.tell({ number: FIRST_FADER + i, midiChannel: 0, position: at / MOST });
  };
  return (
    <View role="group" aria-label="Built-in controller">
      {PARAMS.map((param, i) => (
        <Rail
          key={param.label}
          param={param}
          value={faders[i]!}
          context={context}
          look="plain"
          onTouch={(value) => send(i, value)}
          onSet={(value) => send(i, value)}
        />
      ))}
      <View style={styles.pads}>
        {Array.from({ length: PADS }, (_, i) => (
          <NotePad key={i} index={i} />
        ))}
      </View>
      <View style={styles.buttons}>
        <Button label="Start, by the controller" icon="play" onPress={() => transportMessages.tell('start')}>
          Start
        </Button>
        <Button label="Stop, by the controller" icon="square" onPress={() => transportMessages.tell('stop')}>
          Stop
        </Button>
        {BUTTONS.map(({ control, name, text }) => (
          <Button key={control} label={`${name}, by the controller`} onPress={() => pressNote(BUTTON_NOTES[control])}>
            {text}
          </Button>
        ))}
      </View>
    </View>
  );
}

function pressNote(note: number): void {
  noteMessages.tell({ kind: 'on', note, midiChannel: 0, value: 1 });
  noteMessages.tell({ kind: 'off', note, midiChannel: 0, value: 0 });
}

/** A pad that sends a note: louder nearer to its top; a finger that moves up on it sends aftertouch. */
function NotePad({ index }: { readonly index: number }) {
  const tokens = useTokens();
  const view = useRef<View>(null);
  const velocity = useRef(DEFAULT_VELOCITY);
  const [down, setDown] = useState(false);
  const send = (kind: 'on' | 'off' | 'pressure'): void =>
    noteMessages.tell({ kind, note: FIRST_PAD + index, midiChannel: 0, value: kind === 'off' ? 0 : velocity.current });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    const listening = new AbortController();
    const read = (event: PointerEvent): void => {
      const { top, height } = element.getBoundingClientRect();
      velocity.current = Math.max(1 / MOST, Math.min(1, 1 - (event.clientY - top) / height));
    };
    // Read before the pad begins.
    element.addEventListener('pointerdown', read, { signal: listening.signal, capture: true });
    element.addEventListener(
      'pointermove',
      (event) => {
        if (!element.hasPointerCapture(event.pointerId)) return;
        read(event);
        noteMessages.tell({ kind: 'pressure', note: FIRST_PAD + index, midiChannel: 0, value: velocity.current });
      },
      { signal: listening.signal },
    );
    return () => listening.abort();
  }, [index]);
  return (
    <HoldArea
      area={view}
      label={`Pad ${index + 1} of the controller`}
      down={down}
      onBegin={() => {
        setDown(true);
        send('on');
        velocity.current = DEFAULT_VELOCITY;
      }}
      onEnd={() => {
        setDown(false);
        send('off');
      }}
      style={[styles.pad, { borderColor: tokens.line, backgroundColor: down ? tokens.seaSoft : tokens.paper }]}
    >
      <Text>{String(index + 1)}</Text>
    </HoldArea>
  );
}

/** Of a pad that is played by a key. */
const DEFAULT_VELOCITY = 100 / MOST;

const styles = StyleSheet.create({
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 12 },
  pads: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 12 },
  pad: {
    width: '22.8%',
    minHeight: 64,
    borderWidth: 1,
    borderRadius: 12,
  },
});
