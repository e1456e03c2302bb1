import { takesHold, type ControlMessage } from '../../../core/controls/message';
import { basePosition } from '../../../core/piece/moves/lane';
import { fromEngineNumber, paramAtPosition } from '../../../core/params/resolve';
import { mapControl } from '../../../core/piece/edits/controls';
import { paramOf } from '../../../core/piece/find';
import type { Control, Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import type { Studio } from '../../studio/studio';
import { useControllers } from './controllerStore';
import { newId } from '../../../data/newId';

/** Time after which a control counts as released: its value becomes the rail's, or the end of a move. */
const REST_MS = 350;

/**
 * Moves parameters by mapped controls, as dragging a rail does. A control takes over when it passes its rail's value.
 */
export class ControlHands {
  private readonly last = new Map<string, number>();
  private readonly held = new Map<string, { readonly target: Target; timer: ReturnType<typeof setTimeout> }>();

  constructor(private readonly studio: Studio) {}

  take(message: ControlMessage): void {
    const { learning } = useControllers.getState();
    if (learning) this.learn(learning, message);
    const { piece } = useOpenPiece.getState();
    for (const control of piece?.controls ?? [])
      if (control.number === message.number && control.midiChannel === message.midiChannel)
        this.move(control, message.position);
  }

  private learn(target: Target, { number, midiChannel, position }: ControlMessage): void {
    const id = newId();
    this.last.set(id, position);
    useControllers.setState({ learning: null });
    useOpenPiece.getState().run(mapControl, { control: { id, number, midiChannel, target } });
  }

  private move(control: Control, position: number): void {
    const { id, target } = control;
    const piece = useOpenPiece.getState().piece!;
    const param = paramOf(piece, target);
    if (!param) return;
    const before = this.last.get(id) ?? null;
    this.last.set(id, position);
    const stands = basePosition(piece, target, param);
    const { waiting } = useControllers.getState();
    if (!this.held.has(id) && !takesHold(before, position, stands)) {
      useControllers.setState({ waiting: { ...waiting, [id]: stands } });
      return;
    }
    if (id in waiting)
      useControllers.setState({
        waiting: Object.fromEntries(Object.entries(waiting).filter(([other]) => other !== id)),
      });
    const value = fromEngineNumber(param, paramAtPosition(param, position));
    this.studio.touch(target, value);
    clearTimeout(this.held.get(id)?.timer);
    this.held.set(id, {
      target,
      timer: setTimeout(() => {
        this.held.delete(id);
        this.studio.release(target, value);
      }, REST_MS),
    });
  }

  /** Clears all touches without releasing them, as the piece was closed. */
  close(): void {
    for (const { timer } of this.held.values()) clearTimeout(timer);
    this.held.clear();
  }
}
