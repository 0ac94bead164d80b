/** A hash of a text in 16 digits: FNV-1a of 32 bits, forwards and backwards. */
export function hashOf(text: string): string {
  const hash = (first: number, step: 1 | -1): string => {
    let value = 0x811c9dc5;
    for (let i = 0, at = first; i < text.length; i++, at += step)
      value = Math.imul(value ^ text.charCodeAt(at), 0x01000193);
    return (value >>> 0).toString(16).padStart(8, '0');
  };
  return hash(0, 1) + hash(text.length - 1, -1);
}
