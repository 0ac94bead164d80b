let release: (() => void) | undefined;

/**
 * Claims a name for this page until another one is claimed or the page goes: of two pages on one character only one keeps it.
 *
 * @returns whether no other page had it
 */
export async function claim(name: string): Promise<boolean> {
  release?.();
  release = undefined;
  return new Promise((done) => {
    void navigator.locks.request(`dot-hop ${name}`, { ifAvailable: true }, (lock) => {
      done(lock !== null);
      return lock === null
        ? undefined
        : new Promise<void>((end) => {
            release = end;
          });
    });
  });
}
