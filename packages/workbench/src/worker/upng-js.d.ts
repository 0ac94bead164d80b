declare module 'upng-js' {
  interface Decoded {
    readonly width: number;
    readonly height: number;
    readonly frames: readonly { readonly delay: number }[];
  }
  interface Upng {
    /** `colours` 0 keeps all; `delays` are milliseconds, for a picture that moves. */
    encode(
      frames: readonly ArrayBuffer[],
      width: number,
      height: number,
      colours: number,
      delays?: readonly number[],
    ): ArrayBuffer;
    decode(file: ArrayBuffer): Decoded;
    /** Each frame as red, green, blue and alpha. */
    toRGBA8(image: Decoded): ArrayBuffer[];
  }
  const upng: Upng;
  // eslint-disable-next-line no-restricted-exports -- the package has no other export
  export default upng;
}
