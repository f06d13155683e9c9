export const ORDER_STATES = ['proposed', 'planned', 'in_bay', 'closed', 'cancelled'] as const;
type OrderState = (typeof ORDER_STATES)[number];

/** Whether an order still goes on: neither closed nor cancelled. */
export const isLive = ({ state }: { readonly state: OrderState }): boolean =>
  state !== 'closed' && state !== 'cancelled';
