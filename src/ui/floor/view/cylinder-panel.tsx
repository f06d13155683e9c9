import type { FloorPlace } from '@/core/work/job-record';
import { taskOf } from '@/core/work/order-model';
import { PART_WORDS } from '@/core/work/say-places';
import type { TaskComponent } from '@/core/work/task';
import { ACTION_WORDS } from '@/text/task-words';
import type { Floor } from '../sync/use-floor';
import { Press } from './parts';
import { PlacePanel } from './place-panel';
import { placesAt, stateAt } from './places-at';
import type { Wrench } from './wrench-panel';

/** One cylinder with all that is done there, from above down: the parts as presses, the one in hand under them. */
export function CylinderPanel({
  floor,
  place,
  next,
  last,
  wrench,
  onPart,
  onNext,
}: {
  floor: Floor;
  place: FloorPlace;
  next: FloorPlace | null;
  /** The target of the plug that was described last. */
  last: string | null;
  wrench: Wrench;
  onPart: (component: TaskComponent) => void;
  onNext: () => void;
}) {
  const { job } = floor;
  const here = placesAt(job, place.id);
  return (
    <>
      {here.length > 1 && (
        <fieldset className="press-row" aria-label="Parts here, from above down">
          {here.map((part) => (
            <Press key={part.target} chosen={part.target === place.target} onPress={() => onPart(part.component)}>
              {PART_WORDS[part.component]}
              {actionWords(floor, part)}
              {STATE[stateAt(floor.record, part)]}
            </Press>
          ))}
        </fieldset>
      )}
      <InHand {...{ floor, place, next, last, wrench, onNext }} />
    </>
  );
}

/** How far a part is, said after its name. */
const STATE = { open: '', done: ', done', left: ', left as it was', moved: '' } as const;

/** What is done to it, where that is not that it is replaced. */
function actionWords({ job }: Floor, place: FloorPlace): string {
  const action = taskOf(job, place)?.action ?? 'replace';
  return action === 'replace' ? '' : `: ${ACTION_WORDS[action].toLowerCase()}`;
}

function InHand({ floor, place, next, ...rest }: Omit<Parameters<typeof CylinderPanel>[0], 'onPart'>) {
  const task = floor.job.tasks.find(({ id }) => id === place.task);
  return task && <PlacePanel {...{ floor, place, task, next: next && nextWords(place, next) }} {...rest} />;
}

/** What comes next, by its site where the parts are alike. */
const nextWords = (now: FloorPlace, next: FloorPlace): string =>
  next.component === 'plug' && now.component !== 'plug' ? `plug ${next.name}` : next.name;
