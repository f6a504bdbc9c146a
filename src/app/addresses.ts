/** Where the screens stand. */
export const cardAddress = (cardId: number): string => `/cards/${cardId}`;
export const factAddress = (factId: number): string => `/book/${factId}`;
export const stockAddress = (stockId: number): string => `/stock/${stockId}`;
export const planAddress = (pairingId: number, kind: string): string => `/bench/${pairingId}/plan/${kind}`;

/** The small card that proves a setting. */
export const proveAddress = (pairingId: number, factId: number): string =>
  `${planAddress(pairingId, 'grid')}?prove=${factId}`;
