/** Whether a code is that of an order, a parcel or a tote: what opens an order at the table. */
export const isPaper = (code: string) => /^(S-\d+(-\d+)?|T-\d+)$/i.test(code.trim());
