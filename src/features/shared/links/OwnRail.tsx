import type { ModulatorChange } from '../../../core/automation/modulator';
import type { Param, ParamValue } from '../../../core/params/param';
import { contextOf } from '../../../core/piece/find';
import { Rail } from '../../../ui/Rail';
import { usePiece } from '../../studio/StudioProvider';

/** Props of the settings of a kind of modulator. */
export interface ModulatorSettingsProps<M> {
  readonly modulator: M;
  readonly change: (part: ModulatorChange) => boolean;
}

interface OwnRailProps<T> {
  readonly param: Param;
  readonly value: T;
  readonly onSet: (value: T) => void;
}

/** One of a modulator's own rails. */
export function OwnRail<T extends ParamValue>({ param, value, onSet }: OwnRailProps<T>) {
  const context = contextOf(usePiece());
  return (
    <Rail
      param={param}
      value={value}
      context={context}
      look="plain"
      onTouch={() => undefined}
      onSet={(set) => onSet(set as T)}
    />
  );
}
