import { MONITORS, type Monitor } from '../../../core/engine/monitor';
import { useAudition } from '../../../data/audition';
import { Chip } from '../../../ui/Chip';
import { ChipGroup } from '../../../ui/ChipGroup';

export const MONITOR_NAMES: Readonly<Record<Monitor, string>> = {
  stereo: 'stereo',
  mono: 'mono',
  left: 'left alone',
  right: 'right alone',
  swapped: 'sides swapped',
};

/** How the main output is listened to. It is this window's alone, and never part of a print or a file. */
export function MonitorChoice() {
  const monitor = useAudition((audition) => audition.monitor);
  return (
    <ChipGroup role="radiogroup" name="Listening, of everything">
      {MONITORS.map((one) => (
        <Chip
          key={one}
          role="radio"
          label={`Listen: ${MONITOR_NAMES[one]}`}
          chosen={monitor === one}
          tone="sea"
          onPress={() => useAudition.setState({ monitor: one })}
        >
          {MONITOR_NAMES[one]}
        </Chip>
      ))}
    </ChipGroup>
  );
}
