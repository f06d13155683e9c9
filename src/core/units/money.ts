const formats = new Map<string, Intl.NumberFormat>();

/**
 * An amount as every screen, paper and reason tells it: with cents only where it is small and has some.
 *
 * @param currency ISO 4217
 * @example moneyText(1317, 'EUR') // "€1,317"
 */
export function moneyText(amount: number, currency: string): string {
  const decimals = Math.abs(amount) < 9.995 && amount % 1 !== 0 ? 2 : 0;
  const key = `${decimals} ${currency}`;
  const format =
    formats.get(key) ??
    new Intl.NumberFormat('en', {
      ...{ style: 'currency', currency },
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
  formats.set(key, format);
  return format.format(amount);
}
