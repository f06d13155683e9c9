import type { DrivingAdvice } from '@/core/misfire/driving';
import { DRIVING_ORDERS, drivingText } from '@/text/misfire-words';

/** Whether a vehicle that misfires may be driven on, where something speaks against it. */
export function StopDriving({ advice }: { advice: DrivingAdvice }) {
  const text = drivingText(advice);
  return (
    text && (
      <p className={advice.driving === 'stop' ? 'stop-driving' : 'told'} role="alert">
        {text}
      </p>
    )
  );
}

/** The same within a line of a list; why stands on the page of the misfire. */
export const DrivingOrder = ({ advice: { driving } }: { advice: DrivingAdvice }) =>
  driving !== 'free' && <strong className="wrong">{DRIVING_ORDERS[driving]}. </strong>;
