import { PieceView } from '@/features/piece/PieceView';

export default function PieceRoute() {
  return <PieceView />;
}
