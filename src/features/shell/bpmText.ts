/** Beats a minute to two places: "92.5". */
export const bpmText = (bpm: number): string => String(Math.round(bpm * 100) / 100);
