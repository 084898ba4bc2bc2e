const table = new Uint32Array(256)
for (let byte = 0; byte < 256; byte++) {
  let value = byte
  for (let bit = 0; bit < 8; bit++) value = value & 1 ? 0xedb88320 ^ (value >>> 1) : value >>> 1
  table[byte] = value
}

/** CRC-32 as zip uses it (ISO/IEC 21320-1, APPNOTE 4.4.7; polynomial of ITU-T V.42), unsigned. */
export function crc32(bytes: Uint8Array): number {
  let value = 0xffffffff
  for (let at = 0; at < bytes.length; at++) value = table[(value ^ bytes[at]!) & 0xff]! ^ (value >>> 8)
  return (value ^ 0xffffffff) >>> 0
}
