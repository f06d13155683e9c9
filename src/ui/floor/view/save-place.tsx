import { Box } from '@chakra-ui/react';
import type { Faults } from '@/core/work/place-done';
import { Press } from './parts';

interface Props {
  /** The place within a sentence: "cylinder 4", "coil 4". */
  readonly name: string;
  /** What saving will write, and what comes next. */
  readonly words: string;
  readonly done: boolean;
  /** What is missing or wrong, by field: empty until somebody has pressed the button. */
  readonly faults: Faults;
  readonly onSave: () => void;
  readonly onNext: () => void;
  readonly onTakeBack: () => void;
}

/** The one button of a place, with what it will do as its second line. What is missing stands above it and leads to its field. */
export function SavePlace({ name, words, done, faults, onSave, onNext, onTakeBack }: Props) {
  return (
    <>
      <div className="site-main">
        {!done && <Missing faults={faults} />}
        <Press main wide onPress={done ? onNext : onSave}>
          {done ? `Done: ${name}` : `Save ${name}`} <span className="press-more">{words}</span>
        </Press>
      </div>
      {done && (
        <Box mt="2">
          <Press wide onPress={onTakeBack}>
            Take {name} back
          </Press>
        </Box>
      )}
    </>
  );
}

/** Each fault is gone as soon as its field is right. */
function Missing({ faults }: { faults: Faults }) {
  const list = Object.entries(faults);
  if (list.length === 0) return null;
  return (
    <div className="fault" role="alert">
      {list.map(([field, fault]) => (
        <button key={field} type="button" onClick={() => jumpTo(field)}>
          {fault}
        </button>
      ))}
    </div>
  );
}

/** Goes to a field of the place in hand, where it has one on the page. */
export function jumpTo(field: string | undefined): void {
  const place = document.querySelector(`[data-field="${field}"]`);
  place?.scrollIntoView({ block: 'center' });
  place?.querySelector<HTMLElement>('input, button')?.focus({ preventScroll: true });
}
