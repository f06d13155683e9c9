import { Caution } from '@/ui/primitives/page';

/** What can hurt at this step. */
export function SafetyLines({ hybrid }: { hybrid: boolean }) {
  return (
    <Caution>
      Ignition off and key out before a connector, coil or lead comes off: its voltage can kill. Engine cold before a
      plug comes out. {hybrid && 'Hybrid: it may start by itself. Isolate it first, by whoever is trained for it. '}The
      manufacturer’s service information comes first.
    </Caution>
  );
}
