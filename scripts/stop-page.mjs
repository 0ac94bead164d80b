// After the tests: ends what serve-page.mjs began.
export default async function stopPage() {
  await globalThis.dotHopPageServer?.close();
}
