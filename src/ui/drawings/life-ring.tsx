/** Life used from which each step of the ramp begins, cold to hot. */
const STEPS = [0.5, 0.75, 0.9, 1, 1.2];
const RADIUS = 8;
const ROUND = 2 * Math.PI * RADIUS;

/** Life used as an arc; a dot inside says that it is over the limit; dashed where the history is only assumed. */
export function LifeRing({ lifeUsed, assumed }: { lifeUsed: number | null; assumed: boolean }) {
  const at = STEPS.findIndex((step) => (lifeUsed ?? 0) < step);
  const arc = (Math.min(1, lifeUsed ?? 0) * ROUND).toFixed(1);
  return (
    <svg
      className="ring"
      data-heat={at < 0 ? STEPS.length : at}
      width="22"
      height="22"
      viewBox="0 0 22 22"
      aria-hidden="true"
    >
      <circle cx="11" cy="11" r={RADIUS} />
      {lifeUsed !== null && (
        <circle
          cx="11"
          cy="11"
          r={RADIUS}
          strokeDasharray={assumed ? '2 3' : `${arc} ${ROUND.toFixed(1)}`}
          transform="rotate(-90 11 11)"
        />
      )}
      {lifeUsed !== null && lifeUsed >= 1 && <circle cx="11" cy="11" r="3" />}
    </svg>
  );
}
