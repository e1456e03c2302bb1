/** What keys do with the moves of a chosen stretch; each is false where nothing could be done. */
export interface StretchActions {
  copy(): boolean;
  clear(): boolean;
  paste(): boolean;
  repeat(): boolean;
}

let current: StretchActions | null = null;

/** For the tools of a stretch, while they are in view: keys do what their buttons do. @returns what takes them away */
export function provideStretchActions(actions: StretchActions): () => void {
  current = actions;
  return () => {
    if (current === actions) current = null;
  };
}

export const stretchActions = (): StretchActions | null => current;
