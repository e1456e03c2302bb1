const PAGE = 65_536;
const compiled = new Map<BufferSource, WebAssembly.Module | null>();

/** A kernel with the memory it works on. */
export interface Kernel {
  readonly memory: WebAssembly.Memory;
  readonly exports: WebAssembly.Exports;
}

function moduleOf(code: Uint8Array<ArrayBuffer>): WebAssembly.Module | null {
  const known = compiled.get(code);
  if (known !== undefined) return known;
  let module: WebAssembly.Module | null = null;
  try {
    module = new WebAssembly.Module(code);
  } catch {
    // Without SIMD the TypeScript version serves.
  }
  compiled.set(code, module);
  return module;
}

/**
 * A kernel on memory of its own; `null` where WebAssembly cannot run it or has no memory left, and TypeScript does the same work. A
 * browser gives a page little more than a hundred memories, however small: what belongs together shares one.
 * @param bytes of memory
 */
export function startKernel(code: Uint8Array<ArrayBuffer>, bytes: number): Kernel | null {
  const module = moduleOf(code);
  if (!module) return null;
  try {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / PAGE) });
    return { memory, exports: new WebAssembly.Instance(module, { env: { memory } }).exports };
  } catch {
    return null;
  }
}

/** Another kernel on memory that is there already. */
export function joinKernel(code: Uint8Array<ArrayBuffer>, memory: WebAssembly.Memory): Kernel | null {
  const module = moduleOf(code);
  return module ? { memory, exports: new WebAssembly.Instance(module, { env: { memory } }).exports } : null;
}
