/**
 * How many cases a heavy property runs: all of them with `npm run test:deep`, a tenth where every change is checked.
 *
 * @example cases(300) // 30, or 300 with TEST_DEEP=1
 */
export const cases = (deep: number): number => (process.env.TEST_DEEP ? deep : Math.ceil(deep / 10));
