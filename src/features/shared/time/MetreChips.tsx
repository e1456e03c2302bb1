import { METRES, metreName, metreOf } from '../../../core/music/metre';
import type { Piece, Section } from '../../../core/piece/piece';
import { Chip } from '../../../ui/Chip';
import { ChipGroup } from '../../../ui/ChipGroup';

export type PieceMetre = NonNullable<Section['metre']>;

/** The metre of a piece before any section. */
export const metreOfPiece = ({ tempo: { beatsPerBar, unit = 4 } }: Piece): PieceMetre => ({ beatsPerBar, unit });

interface MetreChipsProps {
  /** Heading, and what each is called for. */
  readonly name: string;
  readonly chosen: PieceMetre | null;
  /** Offers none of its own, as a first choice of this name. */
  readonly none?: string;
  readonly onChoose: (metre: PieceMetre | null) => void;
}

/** Metres from 2/4 to 12/8, one of which is chosen. */
export function MetreChips({ name, chosen, none, onChoose }: MetreChipsProps) {
  return (
    <ChipGroup role="radiogroup" name={name}>
      {none === undefined ? null : (
        <Chip
          role="radio"
          label={`${name}: ${none}`}
          chosen={chosen === null}
          tone="sea"
          onPress={() => onChoose(null)}
        >
          {none}
        </Chip>
      )}
      {METRES.map(([count, unit]) => {
        const metre = metreOf(count, unit) as PieceMetre;
        const text = metreName(metre);
        return (
          <Chip
            key={text}
            role="radio"
            label={`${name}: ${text}`}
            chosen={chosen !== null && metreName(chosen) === text}
            tone="sea"
            onPress={() => onChoose(metre)}
          >
            {text}
          </Chip>
        );
      })}
    </ChipGroup>
  );
}
