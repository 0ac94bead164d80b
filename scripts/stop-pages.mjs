// After the tests: ends what serve-pages.mjs began.
export default async function stopPages() {
  for (const { server } of Object.values(globalThis.dotHopPages ?? {})) await server.close();
}
