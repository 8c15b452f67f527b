/** Time to take an address by cable or radio. Typical. */
export const JOIN_MS = { wired: 2600, radio: 5200, none: 0 } as const;
