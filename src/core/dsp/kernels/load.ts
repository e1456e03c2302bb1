const PAGE = 65_536;
const compiled = new Map<BufferSource, WebAssembly.Module | null>();

/**
 * A kernel in one build, or in two: one for engines that multiply and add in one go (relaxed SIMD), and one for all.
 */
export type KernelCode =
  Uint8Array<ArrayBuffer> | { readonly plain: Uint8Array<ArrayBuffer>; readonly fused: Uint8Array<ArrayBuffer> };

/** A kernel with the memory it works on. */
export interface Kernel {
  readonly memory: WebAssembly.Memory;
  readonly exports: WebAssembly.Exports;
}

/** Room in the memory of a kernel: what belongs together shares one. */
export interface KernelRoom {
  readonly memory: WebAssembly.Memory;
  /** Where it begins, in bytes. */
  readonly at: number;
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

/** The fused build of a kernel where this engine takes it, else the plain one. */
function chosen(code: KernelCode): WebAssembly.Module | null {
  if (code instanceof Uint8Array) return moduleOf(code);
  return moduleOf(code.fused) ?? moduleOf(code.plain);
}

/**
 * A kernel on memory of its own; `null` where WebAssembly cannot run it or has no memory left, and TypeScript does the
 * same work. A browser gives a page little more than a hundred memories, however small: what belongs together shares
 * one.
 * @param bytes of memory
 */
export function startKernel(code: KernelCode, bytes: number): Kernel | null {
  const module = chosen(code);
  if (!module) return null;
  try {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / PAGE) });
    return { memory, exports: new WebAssembly.Instance(module, { env: { memory } }).exports };
  } catch {
    return null;
  }
}

/** Another kernel on memory that is there already. */
export function joinKernel(code: KernelCode, memory: WebAssembly.Memory): Kernel | null {
  const module = chosen(code);
  return module ? { memory, exports: new WebAssembly.Instance(module, { env: { memory } }).exports } : null;
}
