import type { Param, ParamValue, ValueContext } from '../core/params/param';
import { ChoiceRail, Rail, SwitchRail } from './Rail';

interface AnyRailProps {
  readonly param: Param;
  readonly value: ParamValue;
  readonly context: ValueContext;
  readonly initial?: ParamValue;
  readonly onSet: (value: ParamValue) => void;
}

/**
 * A rail, a choice or a switch, by the kind of parameter; for values that are not part of the piece and are heard only
 * on request.
 */
export function AnyRail({ param, value, context, initial, onSet }: AnyRailProps) {
  if (param.kind === 'toggle') return <SwitchRail param={param} value={value} onSet={onSet} />;
  if (param.kind === 'choice') return <ChoiceRail param={param} value={value} onSet={onSet} />;
  return (
    <Rail
      param={param}
      value={value}
      context={context}
      look="wet"
      initial={initial}
      onTouch={() => undefined}
      onSet={onSet}
    />
  );
}
