// AssemblyScript. Shared by kernels that are built twice: once for processors and engines that multiply and add in one
// go.

/** c + a * b, rounded once where that is to be had. */
@inline
export function madd(a: v128, b: v128, c: v128): v128 {
  return ASC_FEATURE_RELAXED_SIMD ? f32x4.relaxed_madd(a, b, c) : f32x4.add(c, f32x4.mul(a, b));
}

/** c - a * b. */
@inline
export function nmadd(a: v128, b: v128, c: v128): v128 {
  return ASC_FEATURE_RELAXED_SIMD ? f32x4.relaxed_nmadd(a, b, c) : f32x4.sub(c, f32x4.mul(a, b));
}

/** As madd, of two f64. */
@inline
export function maddTwo(a: v128, b: v128, c: v128): v128 {
  return ASC_FEATURE_RELAXED_SIMD ? f64x2.relaxed_madd(a, b, c) : f64x2.add(c, f64x2.mul(a, b));
}
