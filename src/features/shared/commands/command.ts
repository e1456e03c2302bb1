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

/** A command of the interface, run by its key or from the list of all. */
export interface Command {
  /** Never changes: changed keys are stored under it. */
  readonly id: string;
  readonly name: string;
  readonly group: (typeof COMMAND_GROUPS)[number];
  /** Search words beside its name. */
  readonly words?: string;
  /** The default key. */
  readonly key?: string;
  /** True where the browser's own action of the key is kept. */
  leavesKey?(): boolean;
  /** Does nothing and reports why, where it is not possible now. */
  run(context: CommandContext): void;
}
