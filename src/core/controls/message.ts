import * as z from 'zod';

/** A control was moved. */
export interface ControlMessage {
  readonly number: number;
  /** From 0. */
  readonly midiChannel: number;
  /** 0-1. */
  readonly position: number;
}

const CONTROL_CHANGE = 0xb0;
const MOST = 127;
const byte = z.number().int().min(0).max(MOST);

/** A control-change message of the MIDI 1.0 specification (1996), table 3; null for any other. */
export function readControl(bytes: ArrayLike<number>): ControlMessage | null {
  const [status, number, value] = [bytes[0] ?? 0, byte.safeParse(bytes[1]), byte.safeParse(bytes[2])];
  if ((status & 0xf0) !== CONTROL_CHANGE || !number.success || !value.success) return null;
  return { number: number.data, midiChannel: status & 0x0f, position: value.data / MOST };
}

/** Two steps of a control of 7 bit. */
const NEAR = 2.5 / MOST;

/**
 * Whether a control takes hold of a rail, so that nothing jumps: when it comes near to where the rail stands, or passes
 * it.
 * @param before where the control was before; null when that is not known
 */
export const takesHold = (before: number | null, now: number, stands: number): boolean =>
  Math.abs(now - stands) <= NEAR || (before !== null && (before - stands) * (now - stands) <= 0);
