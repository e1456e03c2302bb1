import type { EffectPicture } from '../../../core/effects/pictures';
import type { Tempo } from '../../../core/music/tempo';
import type { Strand } from '../../../core/piece/piece';
import { BraidChart } from './BraidChart';
import { CurveChart } from './CurveChart';
import { DecayChart } from './DecayChart';
import { ImpulseChart } from './ImpulseChart';
import type { OnPull } from './Grip';
import { ImageChart } from './ImageChart';
import { MotionChart } from './MotionChart';
import { PartialsChart } from './PartialsChart';
import { PlaceChart } from './PlaceChart';
import { RepeatsChart } from './RepeatsChart';
import { ResponseChart } from './ResponseChart';
import { RoomChart } from './RoomChart';
import { SwayChart } from './SwayChart';
import { TransferChart } from './TransferChart';
import { WaveChart } from './WaveChart';

interface PictureChartProps {
  readonly picture: EffectPicture;
  readonly tempo: Tempo;
  /** What is in a braid. */
  readonly strands: readonly Strand[];
  readonly width: number;
  readonly height: number;
  /** True while a finger on a map draws a path. */
  readonly drawing: boolean;
  /** Place in the piece in seconds while it plays, else null. */
  readonly playing: () => number | null;
  readonly onPull: OnPull;
}

/** The picture of an effect, by what kind it is. */
export function PictureChart({ picture, tempo, strands, width, height, drawing, playing, onPull }: PictureChartProps) {
  switch (picture.kind) {
    case 'braid':
      return <BraidChart picture={picture} strands={strands} width={width} height={height} />;
    case 'repeats':
      return <RepeatsChart picture={picture} tempo={tempo} width={width} height={height} onPull={onPull} />;
    case 'decay':
      return <DecayChart picture={picture} width={width} height={height} onPull={onPull} />;
    case 'response':
      return <ResponseChart picture={picture} width={width} height={height} playing={playing} onPull={onPull} />;
    case 'impulse':
      return <ImpulseChart picture={picture} width={width} height={height} onPull={onPull} />;
    case 'room':
      return <RoomChart picture={picture} width={width} height={height} onPull={onPull} />;
    case 'motion':
      return <MotionChart picture={picture} tempo={tempo} width={width} height={height} onPull={onPull} />;
    case 'place':
      return <PlaceChart picture={picture} width={width} height={height} drawing={drawing} onPull={onPull} />;
    case 'curve':
      return <CurveChart picture={picture} width={width} height={height} onPull={onPull} />;
    case 'sway':
      return <SwayChart picture={picture} width={width} height={height} />;
    case 'partials':
      return <PartialsChart picture={picture} width={width} height={height} />;
    case 'transfer':
      return <TransferChart picture={picture} width={width} height={height} onPull={onPull} />;
    case 'wave':
      return <WaveChart picture={picture} width={width} height={height} />;
    case 'image':
      return <ImageChart picture={picture} width={width} height={height} />;
  }
}
