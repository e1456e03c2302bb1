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

/** A note-on, a note-off, or aftertouch (of one key or of the channel). */
export interface NoteMessage {
  readonly kind: 'on' | 'off' | 'pressure';
  /** 0-127; null for pressure on all that are held on the channel. */
  readonly note: number | null;
  /** From 0. */
  readonly midiChannel: number;
  /** Velocity or pressure, 0-1. */
  readonly value: number;
}

const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;
const KEY_PRESSURE = 0xa0;
const CHANNEL_PRESSURE = 0xd0;

/** A note or its pressure of the MIDI 1.0 specification (1996), table 2; null for any other. */
export function readNote(bytes: ArrayLike<number>): NoteMessage | null {
  const status = (bytes[0] ?? 0) & 0xf0;
  const midiChannel = (bytes[0] ?? 0) & 0x0f;
  const [first, second] = [byte.safeParse(bytes[1]).data, byte.safeParse(bytes[2]).data];
  if (first === undefined) return null;
  if (status === CHANNEL_PRESSURE) return { kind: 'pressure', note: null, midiChannel, value: first / MOST };
  if (second === undefined) return null;
  const value = second / MOST;
  if (status === KEY_PRESSURE) return { kind: 'pressure', note: first, midiChannel, value };
  // A note-on of velocity 0 is a note-off.
  if (status === NOTE_OFF || (status === NOTE_ON && second === 0))
    return { kind: 'off', note: first, midiChannel, value: 0 };
  return status === NOTE_ON ? { kind: 'on', note: first, midiChannel, value } : null;
}

/** A transport command of a controller. */
export type TransportMessage = 'start' | 'continue' | 'stop';

const TRANSPORT: Readonly<Record<number, TransportMessage>> = { 0xfa: 'start', 0xfb: 'continue', 0xfc: 'stop' };

/** A real-time message that starts or stops playing, of the MIDI 1.0 specification (1996), table 6; null for any other. */
export const readTransport = (bytes: ArrayLike<number>): TransportMessage | null => TRANSPORT[bytes[0] ?? 0] ?? null;

/** Two steps of a control of 7 bit. */
const NEAR = 2.5 / MOST;

/**
 * Soft takeover: whether a control takes over a rail without a jump: when it comes near to the rail's value, or passes
 * it.
 * @param before where the control was before; null when that is not known
 */
export const takesHold = (before: number | null, now: number, stands: number): boolean =>
  Math.abs(now - stands) <= NEAR || (before !== null && (before - stands) * (now - stands) <= 0);
