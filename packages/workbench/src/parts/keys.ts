/** What a key means here, if it means something; then the page does nothing else with it. */
export function meantBy<T>(event: React.KeyboardEvent, keys: Readonly<Record<string, T>>): T | undefined {
  const meant = Object.hasOwn(keys, event.key) ? keys[event.key] : undefined;
  if (meant !== undefined) event.preventDefault();
  return meant;
}
