const compiled = new Map<BufferSource, WebAssembly.Module | null>();

/** A kernel made ready once for all who use it; `null` where WebAssembly cannot run it, and TypeScript does the same work. */
export function compiledKernel(bytes: Uint8Array<ArrayBuffer>): WebAssembly.Module | null {
  const known = compiled.get(bytes);
  if (known !== undefined) return known;
  let module: WebAssembly.Module | null = null;
  try {
    module = new WebAssembly.Module(bytes);
  } catch {
    // Without SIMD the TypeScript version serves.
  }
  compiled.set(bytes, module);
  return module;
}
