import { STEP_FRAMES } from '../../blocks';
import { NETWORK_LINES as LINES, PAIR_SPAN, PAIRS, SHELF_FIGURES, type NetworkMemory } from './layout';
import { DENORMAL_GUARD } from '../../denormals';

const HALF = Math.SQRT1_2;
/** Stages of a matrix that mixes all lines; one with fewer stages has no rotation. */
const STAGES = 4;

/**
 * One step of the network in TypeScript: the reference for kernels/network/kernel.as.ts, used where that cannot run.
 * @returns the highest level written
 */
export function networkStep(m: NetworkMemory, size: number, place: number, stages: number): number {
  m.output.fill(0);
  for (let line = 0; line < LINES; line += 1) {
    readLine(m, line, size, place);
    hear(m, line);
  }
  for (let line = 0; line < LINES; line += 1) absorb(m, line);
  for (let stage = 0; stage < stages; stage += 1) mixStage(m.read, 1 << stage);
  if (stages === STAGES) for (let pair = 0; pair < PAIRS; pair += 1) rotatePair(m, pair);
  let peak = 0;
  for (let line = 0; line < LINES; line += 1) {
    const risen = writeLine(m, line, size, place);
    if (risen > peak) peak = risen;
  }
  return peak;
}

function readLine(m: NetworkMemory, line: number, size: number, place: number): void {
  const { rings, read } = m;
  const ring = line * size;
  const mask = size - 1;
  const to = line * STEP_FRAMES;
  const slope = m.slopes[line]!;
  let delay = m.delays[line]!;
  if (slope === 0 && delay === Math.floor(delay)) {
    for (let i = 0; i < STEP_FRAMES; i += 1) read[to + i] = rings[ring + ((place + i - delay) & mask)]!;
    return;
  }
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    delay += slope;
    const from = place + i - delay;
    const at = Math.floor(from);
    const f = from - at;
    const p = f + 1;
    const q = f - 1;
    const r = f - 2;
    read[to + i] =
      (-f * q * r * rings[ring + ((at - 1) & mask)]!) / 6 +
      (p * q * r * rings[ring + (at & mask)]!) / 2 -
      (p * f * r * rings[ring + ((at + 1) & mask)]!) / 2 +
      (p * f * q * rings[ring + ((at + 2) & mask)]!) / 6;
  }
}

function hear({ read, output, outGains, outGainSteps }: NetworkMemory, line: number): void {
  let left = outGains[line]!;
  let right = outGains[LINES + line]!;
  const leftMove = outGainSteps[line]!;
  const rightMove = outGainSteps[LINES + line]!;
  const from = line * STEP_FRAMES;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const x = read[from + i]!;
    left += leftMove;
    right += rightMove;
    output[i] = output[i]! + left * x;
    output[STEP_FRAMES + i] = output[STEP_FRAMES + i]! + right * x;
  }
}

/** Two transposed second-order sections in powers of z - 1 (dsp/shelf.ts), their coefficients ramped linearly. */
function absorb(m: NetworkMemory, line: number): void {
  section(m, line, 0, 0);
  section(m, line, SHELF_FIGURES / 2, 2);
}

function section({ read, now, move, states }: NetworkMemory, line: number, row: number, stateRow: number): void {
  const at = row * LINES + line;
  let b0 = now[at]!,
    b1 = now[at + LINES]!,
    b2 = now[at + 2 * LINES]!,
    a1 = now[at + 3 * LINES]!,
    a2 = now[at + 4 * LINES]!;
  const b0m = move[at]!,
    b1m = move[at + LINES]!,
    b2m = move[at + 2 * LINES]!,
    a1m = move[at + 3 * LINES]!,
    a2m = move[at + 4 * LINES]!;
  const stateAt = stateRow * LINES + line;
  let s = states[stateAt]!;
  let t = states[stateAt + LINES]!;
  const from = line * STEP_FRAMES;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    b0 += b0m;
    b1 += b1m;
    b2 += b2m;
    a1 += a1m;
    a2 += a2m;
    const x = read[from + i]!;
    const y = b0 * x + s;
    s += b1 * x - a1 * y + t;
    t += b2 * x - a2 * y;
    read[from + i] = y;
  }
  states[stateAt] = s + DENORMAL_GUARD - DENORMAL_GUARD;
  states[stateAt + LINES] = t + DENORMAL_GUARD - DENORMAL_GUARD;
}

/** Rotates a pair of lines; a rotation is orthogonal and so preserves energy. */
function rotatePair({ read, rotations }: NetworkMemory, pair: number): void {
  let cosine = rotations[pair]!;
  let sine = rotations[PAIRS + pair]!;
  const cosineMove = rotations[2 * PAIRS + pair]!;
  const sineMove = rotations[3 * PAIRS + pair]!;
  if (cosine === 1 && cosineMove === 0) return;
  const p = pair * STEP_FRAMES;
  const q = p + PAIR_SPAN * STEP_FRAMES;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    cosine += cosineMove;
    sine += sineMove;
    const a = read[p + i]!;
    const b = read[q + i]!;
    read[p + i] = cosine * a - sine * b;
    read[q + i] = sine * a + cosine * b;
  }
}

function mixStage(read: Float32Array, span: number): void {
  for (let line = 0; line < LINES; line += 1) {
    if (line & span) continue;
    const p = line * STEP_FRAMES;
    const q = p + span * STEP_FRAMES;
    for (let i = 0; i < STEP_FRAMES; i += 1) {
      const a = read[p + i]!;
      const b = read[q + i]!;
      read[p + i] = HALF * (a + b);
      read[q + i] = HALF * (a - b);
    }
  }
}

function writeLine({ read, rings, input, inGains }: NetworkMemory, line: number, size: number, place: number): number {
  const left = inGains[line]!;
  const right = inGains[LINES + line]!;
  const from = line * STEP_FRAMES;
  const to = line * size + place;
  let peak = 0;
  for (let i = 0; i < STEP_FRAMES; i += 1) {
    const x = read[from + i]! + left * input[i]! + right * input[STEP_FRAMES + i]! + DENORMAL_GUARD - DENORMAL_GUARD;
    rings[to + i] = x;
    const level = x < 0 ? -x : x;
    if (level > peak) peak = level;
  }
  return peak;
}
