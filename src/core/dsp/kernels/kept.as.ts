// AssemblyScript. Shared by kernels whose loops need constants.

/** Exported again by every kernel that is built with it, so that no compiler takes it for a constant. */
export let unit: f32 = 1;

/** A constant for a loop. Browsers make one of four figures anew at each turn, which can take longer than what is done with it; what they must take for a result they keep. */
@inline
export function kept(value: f32): v128 {
  return f32x4.splat(unit * value);
}
