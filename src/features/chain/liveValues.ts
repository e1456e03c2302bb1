import type { ParamValue } from '../../core/params/param';
import { createStore, type StoreApi } from 'zustand';

type Values = Readonly<Record<string, ParamValue>>;

/**
 * Values of an effect that a hand is moving and that are not part of the piece yet, by parameter. A store of its own for
 * each editor: what shows one value is drawn anew, and the rest of the editor is not.
 */
export type LiveValues = StoreApi<Values>;

export const makeLiveValues = (): LiveValues => createStore<Values>(() => ({}));

/** @param value null once the hand has let go */
export function setLiveValue(live: LiveValues, param: string, value: ParamValue | null): void {
  const { [param]: _gone, ...rest } = live.getState();
  live.setState(value === null ? rest : { ...rest, [param]: value }, true);
}
