import type { Params, ParamValue } from '../params/param';

/** A condition for a parameter to have any effect: on another parameter of the effect, or on its strands. */
export type Condition =
  | { readonly param: string; readonly is: ParamValue }
  | { readonly param: string; readonly isNot: ParamValue }
  | { readonly param: string; readonly atLeast: number }
  /** True when the strand at this position exists. */
  | { readonly strand: number };

/** For each parameter that is not always of use, the conditions that all have to hold; its rail is hidden otherwise. */
export type VisibleWhen = Readonly<Record<string, readonly Condition[]>>;

/** The part of an effect in a chain that decides which of its rails are shown. */
export interface Shown {
  readonly values: Readonly<Record<string, ParamValue>>;
  readonly strands?: readonly { readonly place: number }[] | undefined;
}

/** The part of an effect's definition that conditions refer to. */
interface Conditional {
  readonly params: Params;
}

/** The same conditions for every parameter of a group. */
export const whenGroup = (params: Params, group: string, ...conditions: readonly Condition[]): VisibleWhen =>
  Object.fromEntries(
    Object.entries(params)
      .filter(([, param]) => param.group === group)
      .map(([id]) => [id, conditions]),
  );

/** Whether one condition holds. */
export function holds(condition: Condition, { params }: Conditional, { values, strands }: Shown): boolean {
  if ('strand' in condition) return strands?.some(({ place }) => place === condition.strand) ?? false;
  const value = values[condition.param] ?? params[condition.param]?.initial;
  if ('is' in condition) return value === condition.is;
  if ('isNot' in condition) return value !== condition.isNot;
  return Number(value) >= condition.atLeast;
}

/** True when a parameter has an effect with the present settings. */
export const isVisible = (
  definition: Conditional & { readonly visibleWhen: VisibleWhen },
  param: string,
  shown: Shown,
): boolean => (definition.visibleWhen[param] ?? []).every((condition) => holds(condition, definition, shown));
