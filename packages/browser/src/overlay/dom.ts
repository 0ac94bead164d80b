/** Makes an element; properties that it has are set, others become attributes. */
export function element<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  properties: Readonly<Record<string, unknown>> = {},
  ...inside: readonly (Node | string)[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(properties))
    if (name in made) (made as unknown as Record<string, unknown>)[name] = value;
    else made.setAttribute(name, String(value));
  made.append(...inside);
  return made;
}

/** Sets a text only where it differs, so that a reader of the screen is not told the same again. */
export function say(part: HTMLElement, text: string): void {
  if (part.textContent !== text) part.textContent = text;
}

/** A number as short as it can be read. */
export function short(value: number): string {
  return Math.abs(value) >= 100 ? String(Math.round(value)) : String(Number(value.toFixed(1)));
}
