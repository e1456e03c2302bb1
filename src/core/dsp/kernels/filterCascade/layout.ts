/** Places in the memory, in figures of eight bytes: first STEP_FRAMES pairs of left and right, then the sections. */
export const SECTIONS_AT = 128;
export const SECTION_FIGURES = 18;
/**
 * Within a section: two states of both sides, then g, damping and the three weights, then how much each moves a sample,
 * then what stands for the run.
 */
export const AT_STATES = 0;
export const AT_SETTINGS = 4;
export const AT_STEPS = 9;
export const AT_A1 = 14;
export const AT_A2 = 15;
export const AT_MOVING = 16;
/** What AT_MOVING holds. */
export const STEADY = 0;
export const RAMPING = 1;
export const BYPASSED = 2;
