import { View } from 'react-native';
import { figure } from '../../core/params/make';
import { contextOf } from '../../core/piece/find';
import type { ParamValue } from '../../core/params/param';
import { Rail } from '../../ui/Rail';
import { usePiece } from '../studio/StudioProvider';
import { FIRST_FADER, tellControl, useControllers } from './controllerStore';

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

/** The controller that ships with the app: eight faders that send what an outside one would. */
export function Faders() {
  const context = contextOf(usePiece());
  const faders = useControllers((controllers) => controllers.faders);
  const send = (i: number, value: ParamValue): void => {
    const at = typeof value === 'number' ? Math.round(value) : 0;
    if (at === useControllers.getState().faders[i]) return;
    useControllers.setState(({ faders: before }) => ({ faders: before.map((other, k) => (k === i ? at : other)) }));
    tellControl({ number: FIRST_FADER + i, midiChannel: 0, position: at / MOST });
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
    </View>
  );
}
