/** Only this machine reaches an address that goes round in it (RFC 1122, 3.2.1.3; RFC 4291, 2.5.3). */
export const isLoopback = (address: string): boolean => /^(127\.|localhost$|\[?::1\]?$)/.test(address)
