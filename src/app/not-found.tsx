import { NotHere } from '@/features/sets/NotHere';

export default function NotFound() {
  return <NotHere />;
}
