import { MovesView } from '@/features/moves/MovesView';

export default function MovesRoute() {
  return <MovesView />;
}
