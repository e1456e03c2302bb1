import { useQuery } from '@tanstack/react-query';
import { canChooseOutput } from '../../../audio/player';
import { keepPreferences, usePreferences } from '../../../data/preferences';
import { Text } from '../../../ui/Text';
import { RadioChips } from '../../../ui/RadioChips';

interface Device {
  readonly id: string;
  readonly name: string;
}

const SYSTEM: Device = { id: '', name: 'the system’s output' };

/** Outputs of this machine. A browser keeps their names back until a page has been given one. */
async function listOutputs(): Promise<Device[]> {
  const devices = await navigator.mediaDevices.enumerateDevices();
  return devices
    .filter(({ kind, deviceId }) => kind === 'audiooutput' && deviceId !== '' && deviceId !== 'default')
    .map(({ deviceId, label }, i) => ({ id: deviceId, name: label || `Output ${i + 1}` }));
}

/** Where the sound goes, in browsers that let a page choose it. */
export function OutputSettings() {
  const output = usePreferences((preferences) => preferences.output);
  const choosable = canChooseOutput() && 'mediaDevices' in navigator;
  const found = useQuery({ queryKey: ['audio outputs'], queryFn: listOutputs, enabled: choosable, staleTime: 0 });
  const devices = found.data ?? [];
  const isGone = output.id !== '' && found.isSuccess && !devices.some(({ id }) => id === output.id);
  return (
    <>
      <RadioChips
        name="Output"
        tone="sea"
        options={[SYSTEM, ...devices].map((one) => ({
          text: one.name,
          label: `Output: ${one.name}`,
          chosen: output.id === one.id || (isGone && one.id === ''),
          choose: () => keepPreferences({ output: one }),
        }))}
      />
      {isGone ? (
        <Text variant="bodySmall">{`“${output.name}” is not connected: the system’s output is used.`}</Text>
      ) : null}
      {choosable ? null : (
        <Text variant="bodySmall">This browser plays through the system’s own output; another is chosen there.</Text>
      )}
    </>
  );
}
