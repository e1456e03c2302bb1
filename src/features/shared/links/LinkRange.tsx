import { StyleSheet, View } from 'react-native';
import type { ChoiceParam, NumberParam, ParamValue } from '../../../core/params/param';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../../core/params/resolve';
import { setLink } from '../../../core/piece/edits/links';
import { contextOf, paramOf } from '../../../core/piece/find';
import type { Link } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { ChoiceRail, Rail } from '../../../ui/Rail';
import { Chip } from '../../../ui/Chip';
import { usePiece } from '../../studio/StudioProvider';

const WHOLE = { low: 0, high: 1 };

/** The range of a link, in the parameter's own unit. */
export function LinkRange({ link, name }: { readonly link: Link; readonly name: string }) {
  const piece = usePiece();
  const { run } = useOpenPiece.getState();
  const param = paramOf(piece, link.target);
  if (!param || param.kind === 'toggle') return null;
  const { range } = link;
  const end = (which: 'low' | 'high', label: string) =>
    range ? <RangeEnd link={link} param={{ ...param, label }} which={which} at={range[which]} /> : null;
  return (
    <View role="group" aria-label={`Range of ${name}`}>
      <Chip
        role="switch"
        label={`A range of its own for ${name}`}
        chosen={range !== undefined}
        tone="coralInk"
        style={styles.start}
        onPress={() => run(setLink, { link: link.id, range: range ? null : WHOLE })}
      >
        {range ? 'within its own range' : 'over the whole rail'}
      </Chip>
      {end('low', 'Not below')}
      {end('high', 'Not above')}
    </View>
  );
}

interface RangeEndProps {
  readonly link: Link;
  readonly param: NumberParam | ChoiceParam;
  readonly which: 'low' | 'high';
  readonly at: number;
}

function RangeEnd({ link, param, which, at }: RangeEndProps) {
  const context = contextOf(usePiece());
  const set = (value: ParamValue): void => {
    const range = { ...(link.range ?? WHOLE), [which]: paramPosition(param, toEngineNumber(param, value, context)) };
    useOpenPiece.getState().run(setLink, { link: link.id, range });
  };
  const value = fromEngineNumber(param, paramAtPosition(param, at));
  if (param.kind === 'choice') return <ChoiceRail param={param} value={value} onSet={set} />;
  return <Rail param={param} value={value} context={context} look="plain" onTouch={() => undefined} onSet={set} />;
}

const styles = StyleSheet.create({ start: { alignSelf: 'flex-start', marginVertical: 4 } });
