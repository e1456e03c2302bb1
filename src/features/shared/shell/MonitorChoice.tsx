import { MONITORS, type Monitor } from '../../../core/engine/monitor';
import { useAudition } from '../../../data/audition';
import { RadioChips } from '../../../ui/RadioChips';

export const MONITOR_NAMES: Readonly<Record<Monitor, string>> = {
  stereo: 'stereo',
  mono: 'mono',
  left: 'left alone',
  right: 'right alone',
  swapped: 'sides swapped',
};

/** Monitoring of the main output, in this window only; never part of a print or a file. */
export function MonitorChoice() {
  const monitor = useAudition((audition) => audition.monitor);
  return (
    <RadioChips
      name="Listening, of everything"
      tone="sea"
      options={MONITORS.map((one) => ({
        text: MONITOR_NAMES[one],
        label: `Listen: ${MONITOR_NAMES[one]}`,
        chosen: monitor === one,
        choose: () => useAudition.setState({ monitor: one }),
      }))}
    />
  );
}
