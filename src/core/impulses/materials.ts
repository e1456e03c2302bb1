/** Middles of the octave bands in Hz. */
export const OCTAVES = [125, 250, 500, 1000, 2000, 4000, 8000] as const;

/** Share of energy that a surface absorbs in each octave; typical figures of building acoustics. */
export const MATERIALS = {
  concrete: [0.01, 0.01, 0.02, 0.02, 0.02, 0.03, 0.04],
  brick: [0.02, 0.03, 0.03, 0.04, 0.05, 0.07, 0.08],
  tile: [0.01, 0.01, 0.01, 0.02, 0.02, 0.02, 0.03],
  plaster: [0.14, 0.1, 0.06, 0.05, 0.04, 0.04, 0.04],
  planks: [0.15, 0.11, 0.1, 0.07, 0.06, 0.07, 0.07],
  panel: [0.28, 0.22, 0.17, 0.09, 0.1, 0.11, 0.11],
  glass: [0.18, 0.06, 0.04, 0.03, 0.02, 0.02, 0.02],
  steel: [0.05, 0.05, 0.05, 0.04, 0.04, 0.03, 0.03],
  carpet: [0.08, 0.24, 0.45, 0.55, 0.62, 0.65, 0.65],
  curtain: [0.14, 0.35, 0.55, 0.72, 0.7, 0.65, 0.6],
  water: [0.01, 0.01, 0.01, 0.01, 0.02, 0.02, 0.03],
  sand: [0.15, 0.35, 0.4, 0.5, 0.55, 0.8, 0.8],
  open: [1, 1, 1, 1, 1, 1, 1],
} as const satisfies Readonly<Record<string, readonly number[]>>;

export type Material = keyof typeof MATERIALS;
export const MATERIAL_NAMES = Object.keys(MATERIALS) as Material[];

/** Absorption of air in each octave, 1/m as energy (ISO 9613-1, 20 degrees, 50 % humidity). */
export const AIR = [0.0001, 0.0003, 0.0006, 0.001, 0.0021, 0.0066, 0.0236] as const;
