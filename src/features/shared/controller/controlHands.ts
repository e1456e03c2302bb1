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

/** A control that rests for so long is let go: what it left becomes the rail's value, or the end of a move. */
const REST_MS = 350;

/**
 * Lets controls move what they are mapped to, as hands on the rails do. A control takes hold when it passes where its
 * rail stands.
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

  /** Forgets what is held, without letting go of it: the piece is gone. */
  close(): void {
    for (const { timer } of this.held.values()) clearTimeout(timer);
    this.held.clear();
  }
}
