import { ChainView } from '@/features/chain/ChainView';

export default function ChainRoute() {
  return <ChainView />;
}
