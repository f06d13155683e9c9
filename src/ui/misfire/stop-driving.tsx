import type { DrivingAdvice } from '@/core/misfire/driving';
import { drivingText } from '@/text/misfire-words';

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
