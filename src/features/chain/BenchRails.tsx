import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import type { EditorPart, EffectDefinition } from '../../core/effects/define';
import type { Param, ParamValue } from '../../core/params/param';
import { effectOfTarget, findLane } from '../../core/piece/find';
import type { Piece, Slot, Target } from '../../core/piece/piece';
import { keepHints, useView } from '../../data/view';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import { LinkList } from '../shared/links/LinkList';
import { HoldPad } from './HoldPad';
import { OwnSound } from './OwnSound';
import { ParamRail } from '../shared/channels/ParamRail';
import { SideTrack } from './SideTrack';
import { sectionTitle } from './shown';
import { TimeTools } from './TimeTools';
import { holds, isVisible } from '../../core/effects/visibleWhen';

type Values = Readonly<Record<string, ParamValue>>;

interface BenchRailsProps {
  readonly channel: string;
  readonly slot: Slot;
  /** The slot's values, with those that a hand is moving now. */
  readonly values: Slot['values'];
  /** What the preset gives: a double tap goes back there. */
  readonly initial: Values;
  readonly onLive: (param: string) => (value: ParamValue | null) => void;
  /** Room for all sections at once, in two columns. */
  readonly roomy: boolean;
}

/** Sections in the order in which the effect names them, without those that have nothing to set now. */
const sectionsOf = ({ slot, values }: BenchRailsProps): string[] => {
  const shown = Object.entries(effectOf(slot.effect).params).filter(([id, param]) =>
    isVisible(effectOf(slot.effect), id, { values, strands: slot.strands }),
  );
  const all = [...new Set(shown.map(([, param]) => param.group))];
  return [...all.filter((name) => name !== 'Mix'), 'Mix'];
};

/** What turns rails by itself is a section of its own, after all others. */
const LINKS = 'Links';

/** Every rail of an effect: one section at a time where there is little room, all in two columns where there is. */
export function BenchRails(props: BenchRailsProps) {
  const wide = useWide();
  const hints = useView((view) => view.hints) ?? wide;
  return props.roomy ? <Columns {...props} hints={hints} /> : <Tabs {...props} hints={hints} />;
}

function Columns(props: BenchRailsProps & { readonly hints: boolean }) {
  const sections = sectionsOf(props);
  const columns = [sections.filter((_, i) => i % 2 === 0), sections.filter((_, i) => i % 2 === 1)];
  const rails = columns.map((names) => names.reduce((sum, name) => sum + paramsOf(props, name).length, 0));
  const shorter = rails[0]! < rails[1]! ? 0 : 1;
  return (
    <ScrollView style={styles.rails} contentContainerStyle={styles.columns}>
      {columns.map((names, i) => (
        <View key={i} style={styles.column}>
          {names.map((name, k) => (
            <View key={name} role="group" aria-label={sectionTitle(name, props.slot)}>
              <View style={styles.sectionHead}>
                <Text variant="headlineSmall" role="heading" aria-level={3} style={styles.sectionName}>
                  {sectionTitle(name, props.slot)}
                </Text>
                {i === 1 && k === 0 ? <HintsTap on={props.hints} /> : null}
              </View>
              {paramsOf(props, name).map(([id, param]) => (
                <Block key={id} id={id} param={param} {...props} />
              ))}
            </View>
          ))}
          {i === shorter ? (
            <View role="group" aria-label={LINKS}>
              <View style={styles.sectionHead}>
                <Text variant="headlineSmall" role="heading" aria-level={3}>
                  {LINKS}
                </Text>
              </View>
              <LinkList channel={props.channel} effect={props.slot.id} />
            </View>
          ) : null}
        </View>
      ))}
    </ScrollView>
  );
}

function Tabs(props: BenchRailsProps & { readonly hints: boolean }) {
  const piece = usePiece();
  const tokens = useTokens();
  const sections = [...sectionsOf(props), LINKS];
  const [wanted, setSection] = useState(sections[0]!);
  const section = sections.includes(wanted) ? wanted : sections[0]!;
  const definition = effectOf(props.slot.effect);
  const shown =
    section === sections[0]
      ? playedFirst(firstThings(paramsOf(props, section), paramsOf(props, 'Mix'), definition.headline), definition)
      : paramsOf(props, section);
  return (
    <>
      <View style={styles.tabs}>
        <ScrollView
          horizontal
          showsHorizontalScrollIndicator={false}
          contentContainerStyle={styles.tabRow}
          role="tablist"
        >
          {sections.map((name) => {
            const moves =
              name === LINKS
                ? piece.links.some(({ target }) => effectOfTarget(target) === props.slot.id)
                : hasMoves(piece, props, name);
            return (
              <Touchable
                key={name}
                role="tab"
                label={`${sectionTitle(name, props.slot)}${moves ? ', has moves' : ''}`}
                chosen={name === section}
                style={[styles.tab, name === section && { borderBottomColor: tokens.sea }]}
                onPress={() => setSection(name)}
              >
                <Text
                  variant={name === section ? 'titleSmall' : 'bodyMedium'}
                  tone={name === section ? 'ink' : 'mute'}
                >{`${sectionTitle(name, props.slot)}${moves ? ' ∿' : ''}`}</Text>
              </Touchable>
            );
          })}
        </ScrollView>
        <HintsTap on={props.hints} />
      </View>
      <ScrollView style={styles.rails} contentContainerStyle={styles.list}>
        {section === LINKS ? (
          <LinkList channel={props.channel} effect={props.slot.id} />
        ) : (
          shown.map(([id, param]) => <Block key={id} id={id} param={param} {...props} />)
        )}
      </ScrollView>
    </>
  );
}

/** What is played comes before what is set. */
function playedFirst(params: readonly [string, Param][], { editorParts }: EffectDefinition): [string, Param][] {
  const isPlayed = ([id]: [string, Param]): boolean =>
    editorParts?.some(({ part, after }) => part === 'holdPad' && after === id) ?? false;
  return [...params.filter(isPlayed), ...params.filter((entry) => !isPlayed(entry))];
}

/**
 * The first section on a small screen: choices that make it what it is, what is ridden most (its rails, then the mix),
 * then its other switches.
 */
function firstThings(
  own: readonly [string, Param][],
  mix: readonly [string, Param][],
  leading: readonly string[],
): [string, Param][] {
  const isRail = ([, param]: readonly [string, Param]): boolean => param.kind === 'number';
  const leads = (entry: readonly [string, Param]): boolean => !isRail(entry) && leading.includes(entry[0]);
  return [
    ...own.filter(leads),
    ...own.filter(isRail),
    ...mix.filter(([id]) => id === 'mix' || id === 'dry' || id === 'wet'),
    ...own.filter((entry) => !isRail(entry) && !leads(entry)),
  ];
}

function HintsTap({ on }: { readonly on: boolean }) {
  return (
    <IconButton
      role="switch"
      icon="help-circle"
      label="Say what each rail does"
      chosen={on}
      tone={on ? 'sea' : 'mute'}
      onPress={() => keepHints(!on)}
    />
  );
}

function Block({
  id,
  param,
  channel,
  slot,
  values,
  initial,
  onLive,
  hints,
}: BenchRailsProps & { readonly id: string; readonly param: Param; readonly hints: boolean }) {
  const target: Target = { kind: 'effect', channel, effect: slot.id, param: id };
  const value = values[id] ?? param.initial;
  const definition = effectOf(slot.effect);
  return (
    <View style={styles.block}>
      <ParamRail
        target={target}
        param={param}
        value={value}
        initial={initial[id]}
        look={id === 'mix' ? 'mix' : 'wet'}
        onLive={onLive(id)}
      />
      {param.kind === 'number' && param.sync === 'time' ? (
        <TimeTools param={param} value={value} target={target} />
      ) : null}
      {hints ? (
        <Text variant="bodySmall" style={styles.hint}>
          {param.hint}
        </Text>
      ) : null}
      {definition.editorParts?.map(({ part, after, when }) =>
        after === id && (!when || holds(when, definition, { values })) ? (
          <EditorPartOf key={part} part={part} channel={channel} slot={slot} />
        ) : null,
      )}
    </View>
  );
}

function EditorPartOf({
  part,
  channel,
  slot,
}: Pick<EditorPart, 'part'> & { readonly channel: string; readonly slot: Slot }) {
  switch (part) {
    case 'sidechain':
      return <SideTrack channel={channel} slot={slot} />;
    case 'ownSound':
      return <OwnSound channel={channel} slot={slot} />;
    case 'holdPad':
      return <HoldPad channel={channel} slot={slot} />;
  }
}

const paramsOf = ({ slot, values }: BenchRailsProps, section: string): [string, Param][] =>
  Object.entries(effectOf(slot.effect).params).filter(
    ([id, param]) => param.group === section && isVisible(effectOf(slot.effect), id, { values, strands: slot.strands }),
  );

const hasMoves = (piece: Piece, { channel, slot }: BenchRailsProps, section: string): boolean =>
  Object.entries(effectOf(slot.effect).params).some(
    ([id, param]) =>
      param.group === section && findLane(piece, { kind: 'effect', channel, effect: slot.id, param: id }),
  );

const styles = StyleSheet.create({
  rails: { flex: 1, minHeight: 0 },
  columns: { flexDirection: 'row', paddingHorizontal: 18, paddingBottom: 20, gap: 34 },
  column: { flex: 1, minWidth: 0 },
  sectionHead: { flexDirection: 'row', alignItems: 'center', minHeight: 44, marginTop: 6 },
  sectionName: { flex: 1 },
  tabs: { flexDirection: 'row', alignItems: 'center', paddingRight: 6 },
  tabRow: { paddingHorizontal: 8 },
  tab: { borderRadius: 0, borderBottomWidth: 2, borderBottomColor: 'transparent', paddingHorizontal: 7 },
  list: { paddingHorizontal: 18, paddingBottom: 16 },
  block: { marginBottom: 2 },
  hint: { marginBottom: 4 },
});
