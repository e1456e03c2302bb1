import { STEP_FRAMES } from '../../blocks';
import {
  AT_A1,
  AT_A2,
  AT_MOVING,
  AT_SETTINGS,
  AT_STATES,
  AT_STEPS,
  RAMPING,
  SECTION_FIGURES,
  SECTIONS_AT,
  STEADY,
} from './layout';
import { DENORMAL_GUARD } from '../../denormals';

/** What kernels/filterCascade/kernel.as.ts does, in TypeScript: its reference, and what works where WebAssembly does not. */
export function filterCascadeReference(memory: Float64Array, moving: Int32Array, sections: number): void {
  for (let s = 0; s < sections; s += 1) {
    const at = SECTIONS_AT + s * SECTION_FIGURES;
    for (let side = 0; side < 2; side += 1) {
      const state = moving[2 * (at + AT_MOVING)];
      if (state === RAMPING) move(memory, at, side);
      else if (state === STEADY) steadySection(memory, at, side);
    }
  }
}

function steadySection(memory: Float64Array, at: number, side: number): void {
  const a1 = memory[at + AT_A1]!,
    a2 = memory[at + AT_A2]!,
    g = memory[at + AT_SETTINGS]!;
  const direct = memory[at + AT_SETTINGS + 2]!,
    band = memory[at + AT_SETTINGS + 3]!,
    low = memory[at + AT_SETTINGS + 4]!;
  let s1 = memory[at + AT_STATES + side]!;
  let s2 = memory[at + AT_STATES + 2 + side]!;
  for (let i = side; i < 2 * STEP_FRAMES; i += 2) {
    const x = memory[i]!;
    const v1 = a1 * s1 + a2 * (x - s2);
    const v2 = s2 + g * v1;
    s1 = v1 + v1 - s1;
    s2 = v2 + v2 - s2;
    memory[i] = direct * x + band * v1 + low * v2;
  }
  memory[at + AT_STATES + side] = s1 + DENORMAL_GUARD - DENORMAL_GUARD;
  memory[at + AT_STATES + 2 + side] = s2 + DENORMAL_GUARD - DENORMAL_GUARD;
}

function move(memory: Float64Array, at: number, side: number): void {
  let g = memory[at + AT_SETTINGS]!,
    k = memory[at + AT_SETTINGS + 1]!,
    direct = memory[at + AT_SETTINGS + 2]!,
    band = memory[at + AT_SETTINGS + 3]!,
    low = memory[at + AT_SETTINGS + 4]!;
  const gStep = memory[at + AT_STEPS]!,
    kStep = memory[at + AT_STEPS + 1]!,
    directStep = memory[at + AT_STEPS + 2]!,
    bandStep = memory[at + AT_STEPS + 3]!,
    lowStep = memory[at + AT_STEPS + 4]!;
  let s1 = memory[at + AT_STATES + side]!;
  let s2 = memory[at + AT_STATES + 2 + side]!;
  for (let i = side; i < 2 * STEP_FRAMES; i += 2) {
    g += gStep;
    k += kStep;
    direct += directStep;
    band += bandStep;
    low += lowStep;
    const x = memory[i]!;
    const v1 = (s1 + g * (x - s2)) / (1 + g * (g + k));
    const v2 = s2 + g * v1;
    s1 = v1 + v1 - s1;
    s2 = v2 + v2 - s2;
    memory[i] = direct * x + band * v1 + low * v2;
  }
  memory[at + AT_STATES + side] = s1 + DENORMAL_GUARD - DENORMAL_GUARD;
  memory[at + AT_STATES + 2 + side] = s2 + DENORMAL_GUARD - DENORMAL_GUARD;
}
