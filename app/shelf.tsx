import { ShelfView } from '@/features/shelf/ShelfView';

export default function ShelfRoute() {
  return <ShelfView />;
}
