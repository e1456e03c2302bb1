import type { ViewName } from '../../../data/address';
import type { Studio } from '../../studio/studio';

export const COMMAND_GROUPS = ['Play', 'Edit', 'Add', 'Channel', 'Piece', 'Go to', 'Show'] as const;

/** What commands act on. */
export interface CommandContext {
  readonly studio: Studio;
  /** Shows a view, of the channel and effect in view. */
  go(view: ViewName): void;
  chooseLight(light: 'day' | 'night' | 'system'): void;
}

/** Something that the whole interface can be told to do: by its key, or from the list of all. */
export interface Command {
  /** Never changes: changed keys are kept by it. */
  readonly id: string;
  readonly name: string;
  readonly group: (typeof COMMAND_GROUPS)[number];
  /** What it is looked for by, beside its name. */
  readonly words?: string;
  /** The key it begins with. */
  readonly key?: string;
  /** True where the browser's own meaning of the key is wanted. */
  leavesKey?(): boolean;
  /** Does nothing and says why, where it cannot be done now. */
  run(context: CommandContext): void;
}
